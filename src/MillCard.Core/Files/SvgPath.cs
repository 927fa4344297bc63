using System.Globalization;
using System.Text.RegularExpressions;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Files;

/// <summary>Reads SVG path data (W3C SVG 1.1, chapter 8) into rings; curves become chords.</summary>
public static partial class SvgPath
{
    private const int MostNumbers = 400_000;
    private const int Chords = 48;

    /// <summary>The closed rings that a path draws, in its own units, Y down as SVG counts.</summary>
    /// <param name="data">What stands in the attribute d.</param>
    /// <exception cref="OutlineException">It is not path data; the message says where.</exception>
    public static IReadOnlyList<IReadOnlyList<Coordinate>> Rings(string data) => new Pen(data).Draw();

    [GeneratedRegex(@"[MmLlHhVvCcSsQqTtAaZz]|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?|[^\s,]", RegexOptions.CultureInvariant)]
    private static partial Regex Token();

    private sealed class Pen(string data)
    {
        private readonly string[] _tokens = Tokens(data);
        private readonly List<IReadOnlyList<Coordinate>> _rings = [];
        private List<Coordinate> _ring = [];
        private int _at;
        private double _x, _y, _controlX, _controlY;

        private static string[] Tokens(string data)
        {
            var tokens = new List<string>();
            foreach (var match in Token().EnumerateMatches(data))
            {
                if (tokens.Count == MostNumbers) throw new OutlineException($"This path has more than {MostNumbers} numbers.");
                tokens.Add(data.Substring(match.Index, match.Length));
            }
            return [.. tokens];
        }

        public IReadOnlyList<IReadOnlyList<Coordinate>> Draw()
        {
            var command = ' ';
            var last = ' ';
            while (_at < _tokens.Length)
            {
                if (char.IsLetter(_tokens[_at][0])) command = _tokens[_at++][0];
                else if (command == ' ') throw Broken();
                Step(command, char.ToUpperInvariant(last));
                last = command;
                // coordinates that follow a move or a close are lines (SVG 1.1, 8.3.2)
                command = command switch { 'M' => 'L', 'm' => 'l', 'Z' or 'z' => ' ', _ => command };
            }
            Close();
            return _rings;
        }

        private void Step(char command, char last)
        {
            var relative = char.IsLower(command);
            double X() => Number() + (relative ? _x : 0);
            double Y() => Number() + (relative ? _y : 0);
            switch (char.ToUpperInvariant(command))
            {
                case 'M': Close(); (_x, _y) = (X(), Y()); _ring.Add(new(_x, _y)); break;
                case 'L': Line(X(), Y()); break;
                case 'H': Line(X(), _y); break;
                case 'V': Line(_x, Y()); break;
                case 'C': Cubic(X(), Y(), X(), Y(), X(), Y()); return;
                case 'S':
                    Cubic(last is 'C' or 'S' ? 2 * _x - _controlX : _x, last is 'C' or 'S' ? 2 * _y - _controlY
                    : _y, X(), Y(), X(), Y()); return;
                case 'Q': Quadratic(X(), Y(), X(), Y()); return;
                case 'T':
                    Quadratic(last is 'Q' or 'T' ? 2 * _x - _controlX : _x, last is 'Q' or 'T' ? 2 * _y - _controlY
                    : _y, X(), Y()); return;
                case 'A': Arc(Number(), Number(), Number(), Flag(), Flag(), X(), Y()); break;
                case 'Z': if (_ring.Count > 0) { (_x, _y) = (_ring[0].X, _ring[0].Y); } Close(); break;
                default: throw Broken();
            }
            (_controlX, _controlY) = (_x, _y);
        }

        private void Line(double x, double y)
        {
            if (_ring.Count == 0) _ring.Add(new(_x, _y));
            _ring.Add(new(_x = x, _y = y));
        }

        private void Cubic(double ax, double ay, double bx, double by, double x, double y)
        {
            var (fromX, fromY) = (_x, _y);
            for (var i = 1; i <= Chords; i++)
            {
                var t = (double)i / Chords;
                var u = 1 - t;
                Line(u * u * u * fromX + 3 * u * u * t * ax + 3 * u * t * t * bx + t * t * t * x,
                    u * u * u * fromY + 3 * u * u * t * ay + 3 * u * t * t * by + t * t * t * y);
            }
            (_controlX, _controlY) = (bx, by);
        }

        private void Quadratic(double ax, double ay, double x, double y)
        {
            Cubic(_x + 2 * (ax - _x) / 3, _y + 2 * (ay - _y) / 3, x + 2 * (ax - x) / 3, y + 2 * (ay - y) / 3, x, y);
            (_controlX, _controlY) = (ax, ay);
        }

        /// <summary>From end points to centre: SVG 1.1, F.6.5 and F.6.6.</summary>
        private void Arc(double rx, double ry, double rotation, bool large, bool sweep, double x, double y)
        {
            (rx, ry) = (Math.Abs(rx), Math.Abs(ry));
            if (rx == 0 || ry == 0 || (x == _x && y == _y)) { Line(x, y); return; }
            var (sin, cos) = Math.SinCos(rotation * Math.PI / 180);
            var (hx, hy) = ((_x - x) / 2, (_y - y) / 2);
            var (px, py) = (cos * hx + sin * hy, cos * hy - sin * hx);
            var stretch = px * px / (rx * rx) + py * py / (ry * ry);
            if (stretch > 1) (rx, ry) = (rx * Math.Sqrt(stretch), ry * Math.Sqrt(stretch));
            var root = Math.Sqrt(Math.Max(0,
                (rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px) / (rx * rx * py * py + ry * ry * px * px))) * (large == sweep
                ? -1 : 1);
            var (qx, qy) = (root * rx * py / ry, -root * ry * px / rx);
            var (cx, cy) = (cos * qx - sin * qy + (_x + x) / 2, sin * qx + cos * qy + (_y + y) / 2);
            var from = Math.Atan2((py - qy) / ry, (px - qx) / rx);
            var turn = Math.Atan2((-py - qy) / ry, (-px - qx) / rx) - from;
            if (sweep && turn < 0) turn += 2 * Math.PI;
            if (!sweep && turn > 0) turn -= 2 * Math.PI;
            for (var i = 1; i < Chords; i++)
            {
                var (s, c) = Math.SinCos(from + turn * i / Chords);
                Line(cx + rx * c * cos - ry * s * sin, cy + rx * c * sin + ry * s * cos);
            }
            Line(x, y);
        }

        private void Close()
        {
            if (_ring.Count >= 3) _rings.Add(_ring);
            _ring = [];
        }

        private double Number() =>
            _at < _tokens.Length && double.TryParse(_tokens[_at], CultureInfo.InvariantCulture, out var value) && Math.Abs(value) < 1e7
                ? Next(value) : throw Broken();

        /// <summary>A flag may stand with no blank behind it: 11 is 1 and 1 (SVG 1.1, 8.3.9).</summary>
        private bool Flag()
        {
            if (_at >= _tokens.Length || _tokens[_at][0] is not ('0' or '1')) throw Broken();
            var token = _tokens[_at];
            if (token.Length == 1) _at++; else _tokens[_at] = token[1..];
            return token[0] == '1';
        }

        private double Next(double value) { _at++; return value; }

        private OutlineException Broken() => new(_at < _tokens.Length
            ? $"This is not path data: \"{_tokens[_at]}\" is not understood as word {_at + 1}."
            : "This path ends in the middle of a command.");
    }
}
