import js from '@eslint/js'
import { createNodeResolver, importX } from 'eslint-plugin-import-x'
import jsxA11y from 'eslint-plugin-jsx-a11y'
import reactHooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import ts from 'typescript-eslint'

/** Rooms that several screens share, the lowest first: each knows only those before it. */
const shared = [
  'units',
  'api',
  'shell',
  'open-document',
  'exchange',
  'drawing',
  'pictorial',
  'findings',
  'open-card',
  'settings',
  'routine-editor',
]

/** Screens: none knows another; `app` alone knows them all and wires them. */
const screens = [
  ...['rack', 'sheet', 'measure-up', 'head', 'reach', 'motion', 'gauges', 'routines', 'line', 'history', 'redline'],
  ...['stock', 'trial', 'dry-run', 'bin-page', 'take-in', 'sources', 'handbook'],
]

const room = (name) => `./src/${name}`
const arrows = [
  ...shared.map((name, i) => ({ target: room(name), from: [...shared.slice(i + 1), ...screens, 'app'].map(room) })),
  ...screens.map((name) => ({ target: room(name), from: [...screens.filter((other) => other !== name), 'app'].map(room) })),
]

/** Pointers into a document are joined by `under` of open-document/pointer, which escapes each step. */
const members = 'envelope|head|motion|heat|modes|routines|firmware|limits|zones|parts|layers'
const message = 'Join pointers with under() of open-document/pointer.'
const gluedPointers = [
  { selector: `TemplateLiteral[quasis.0.value.raw=/^\\/(${members})\\//]`, message },
  { selector: 'TemplateLiteral[quasis.0.value.raw=""][quasis.1.value.raw=/^\\//] > [name=/^(at|pointer)$/]', message },
  { selector: 'TemplateLiteral[quasis.0.value.raw=""][quasis.1.value.raw=/^\\//] > MemberExpression[property.name="pointer"]', message },
]

export default ts.config(
  { ignores: ['dist', 'src/api/schema.ts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...ts.configs.recommendedTypeChecked,
  reactHooks.configs.flat['recommended-latest'],
  jsxA11y.flatConfigs.recommended,
  {
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.tsx', '.css'] })] },
    languageOptions: { globals: globals.browser, parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      // the compiler that this warns for is not used
      'react-hooks/incompatible-library': 'off',
      'import-x/no-cycle': 'error',
      'import-x/no-restricted-paths': ['error', { zones: arrows, basePath: import.meta.dirname }],
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Ask through src/api: one client, with its types and its failures.' }],
      'no-nested-ternary': 'error',
      'no-restricted-syntax': ['error', ...gluedPointers],
      // what stands at a pointer is unknown until a field says what it is
      '@typescript-eslint/no-base-to-string': 'off',
      'jsx-a11y/label-has-associated-control': ['error', { controlComponents: ['NumberField', 'SettingField'], depth: 4 }],
      // the first field of a dialog takes the focus, as the dialog pattern asks
      'jsx-a11y/no-autofocus': 'off',
    },
  },
  // a scene is changed in place: it is no state of the page
  { files: ['src/pictorial/**'], rules: { 'react-hooks/immutability': 'off' } },
  { files: ['**/*.js'], ...ts.configs.disableTypeChecked },
  { files: ['src/api/**', '**/*.test.ts'], rules: { 'no-restricted-globals': 'off' } },
)
