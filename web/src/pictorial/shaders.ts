import { Color, DoubleSide, ShaderMaterial, Vector3 } from 'three'

/** Above this height nothing is drawn; what stands for "nothing is cut". */
export const uncut = 1e9
/** Below this height nothing is drawn, mm: what is sunk into the bed is not printed. */
export const bedLevel = -0.001

const vertex = `
varying vec3 place;
void main() {
  vec4 there = modelMatrix * vec4(position, 1.0);
  place = there.xyz;
  gl_Position = projectionMatrix * viewMatrix * there;
}`

/** Flat tints by the way a face looks; what a cut opens is hatched, as the back of a face seen through it is where the solid is cut. */
export const facesMaterial = () =>
  new ShaderMaterial({
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 2,
    uniforms: {
      light: { value: new Color() },
      shade: { value: new Color() },
      hatch: { value: new Color() },
      cut: { value: uncut },
      spacing: { value: 7 },
    },
    vertexShader: vertex,
    fragmentShader: `
varying vec3 place;
uniform vec3 light, shade, hatch;
uniform float cut, spacing;
void main() {
  if (place.z > cut || place.z < ${bedLevel}) discard;
  vec3 normal = normalize(cross(dFdx(place), dFdy(place)));
  if (gl_FrontFacing) {
    float lit = 0.5 + 0.5 * dot(normal, normalize(vec3(-0.45, -0.25, 0.85)));
    gl_FragColor = vec4(mix(shade, light, floor(lit * 5.0 + 0.5) / 5.0), 1.0);
  } else {
    float line = mod(gl_FragCoord.x + gl_FragCoord.y, spacing);
    gl_FragColor = vec4(line < 1.0 ? hatch : light, 1.0);
  }
}`,
  })

/** Edges in ink: those where the solid breaks, and those where it turns away. */
export const edgesMaterial = () =>
  new ShaderMaterial({
    uniforms: { ink: { value: new Color() }, cut: { value: uncut }, toward: { value: new Vector3(0, 0, 1) } },
    vertexShader: `
attribute vec3 left, right;
uniform vec3 toward;
varying float height;
void main() {
  vec4 there = modelMatrix * vec4(position, 1.0);
  height = there.z;
  float l = dot(mat3(modelMatrix) * left, toward), r = dot(mat3(modelMatrix) * right, toward);
  bool breaks = dot(left, right) < 0.86, turns = l * r <= 0.0;
  gl_Position = breaks || turns ? projectionMatrix * viewMatrix * there : vec4(2.0, 2.0, 2.0, 1.0);
}`,
    fragmentShader: `
uniform vec3 ink;
uniform float cut;
varying float height;
void main() {
  if (height > cut || height < ${bedLevel}) discard;
  gl_FragColor = vec4(ink, 1.0);
}`,
  })
