using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>The squares of a very fine raster that anything of an area touches, one bit each: the outline of any heap, told to the side of
/// a square, in a time that its crossings do not count in.</summary>
/// <remarks>Nothing of the area is lost: squares that are touched are covered whole. Where drawing takes too long, or their border would
/// have too many pieces, four squares become one.</remarks>
internal sealed class TouchedCells
{
    /// <summary>Squares along a side, powers of two.</summary>
    private const int Finest = 1 << 14, Coarsest = 1 << 8;

    /// <summary>Squares in a row of a block, the bits of a word; rows of a block, and of a tower of blocks.</summary>
    private const int Word = 64, Band = 8, Tower = 64;

    /// <summary>So many rows of triangles are drawn at most, if the squares need not be coarser than the coarsest for it. A look at some
    /// blocks beside each other counts as one.</summary>
    private const long MostRows = 16_000_000, Looks = 32;

    /// <summary>So many triangles, drawn first, tell how much work all of them are.</summary>
    private const int Sample = 256;

    /// <summary>So many squares more all round are room for corners that are left out: the steps of a slanting border stand up to one and a
    /// half off a straight way.</summary>
    private const int Room = 2;

    /// <summary>Most straight pieces of the border of the squares.</summary>
    private const int MostPieces = 1_500_000;

    /// <summary>Most corners of the outline: whether it overlaps others is asked corner by corner.</summary>
    public const int MostCorners = 100_000;

    /// <summary>Two steps of the raster on which borders are broken up, mm.</summary>
    private const double Margin = 2 * Node.Step;

    private readonly SquareRaster _raster;
    private readonly double _each;
    private readonly int _words;
    // block by block, so that what lies near each other in the plane does in memory
    private readonly ulong[] _bits;
    // of every block, how many of its rows are touched from side to side
    private readonly byte[] _fullRows;
    // of every eight blocks above each other, how many of them are touched all over
    private readonly byte[] _fullBlocks;
    private long _work;

    private TouchedCells(SquareRaster raster)
    {
        (_raster, _words, _each) = (raster, raster.Side / Word, 1 / raster.Size);
        (_bits, _fullRows) = (new ulong[raster.Side * _words], new byte[raster.Side / Band * _words]);
        _fullBlocks = new byte[raster.Side / Tower * _words];
    }

    /// <summary>An outline that has all of the area in it.</summary>
    /// <param name="triangles">Any, at least one.</param>
    /// <param name="certain">What is covered beside them.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <returns>The areas, and how far from the true area a point of them may be, mm.</returns>
    public static (Shape Area, double Beyond) Outline(IReadOnlyList<Triangle> triangles, CertainCells certain, CancellationToken stop)
    {
        for (var touched = Of(triangles, certain, stop); ; touched = touched.Coarser())
        {
            var (raster, coarsest) = (touched._raster, touched._raster.Side == Coarsest);
            if (CellRings.Of(raster.Side, touched.Grown().Grown().Row, MostPieces, stop) is not { } rings) continue;
            var border = rings.SelectMany(ring => Thinned(ring, raster, stop)).ToList();
            if (border.Count > MostCorners && !coarsest) continue;
            var area = OuterBorder.Enclosed(border, certain: null, stop) ?? (coarsest ? Winding.Resolve(border, stop) : null);
            // across a square that is touched at a corner, across those beside it, and by what a corner that was left out stood back
            if (area is not null) return (area, raster.Size * ((1 + Room) * Math.Sqrt(2) + Room));
        }
    }

    /// <summary>A ring with fewer corners: steps of a slanting border become straight.</summary>
    private static IEnumerable<DirectedSegment> Thinned((int Column, int Row)[] ring, SquareRaster raster, CancellationToken stop)
    {
        Coordinate[] corners = [.. ring.Append(ring[0]).Select(c => new Coordinate(raster.X(c.Column), raster.Y(c.Row)))];
        var kept = Thinning.Of(corners, Room * raster.Size, stop);
        for (var i = 1; i < kept.Length; i++) yield return new(kept[i - 1].X, kept[i - 1].Y, kept[i].X, kept[i].Y);
    }

    private static TouchedCells Of(IReadOnlyList<Triangle> triangles, CertainCells certain, CancellationToken stop)
    {
        var box = new Envelope();
        foreach (var rectangle in certain.Rectangles()) box.ExpandToInclude(rectangle);
        foreach (var t in triangles)
        {
            box.ExpandToInclude(t.MinX, t.MinY);
            box.ExpandToInclude(t.MaxX, t.MaxY);
        }
        var extent = Math.Max(box.Width, box.Height);
        // room for the squares all round, however often four become one
        var room = 4.0 / Coarsest * Math.Max(extent, Finest * Plane.Touch);
        var touched = new TouchedCells(
            SquareRaster.Over(box.MinX - room, box.MinY - room, box.MinX + extent + room, box.MinY + extent + room, Finest));
        foreach (var r in certain.Rectangles())
            for (int row = touched._raster.Row(r.MinY), last = touched._raster.Row(r.MaxY); row <= last; row++)
                touched.Fill(row, (touched._raster.Column(r.MinX), touched._raster.Column(r.MaxX)));
        for (var (every, wanted) = (1 + triangles.Count / Sample, long.MaxValue); touched._raster.Side > Coarsest && wanted > MostRows;)
        {
            stop.ThrowIfCancellationRequested();
            for (var i = 0; i < triangles.Count; i += every) touched.Touch(triangles[i]);
            wanted = touched._work * every;
            if (wanted > MostRows) touched = touched.Coarser();
        }
        for (var i = 0; i < triangles.Count; i++)
        {
            if (i % 4096 == 0) stop.ThrowIfCancellationRequested();
            if (touched._work > 2 * MostRows && touched._raster.Side > Coarsest) touched = touched.Coarser();
            touched.Touch(triangles[i]);
        }
        return touched;
    }

    /// <summary>All squares that a triangle touches, and those that it all but touches.</summary>
    private void Touch(in Triangle t)
    {
        var banded = new Banded(t);
        for (int row = _raster.Row(t.MinY - Margin), last = _raster.Row(t.MaxY + Margin), next; row <= last; row = next)
        {
            next = Math.Min(last, row | Tower - 1) + 1;
            if (IsFull(_fullBlocks, row / Tower, Columns(banded, row, next))) continue;
            for (int block = row, end; block < next; block = end)
            {
                end = Math.Min(next, (block | Band - 1) + 1);
                if (IsFull(_fullRows, block / Band, Columns(banded, block, end))) continue;
                _work += end - block;
                for (var line = block; line < end; line++) Fill(line, Columns(banded, line, line + 1));
            }
        }
    }

    /// <summary>First and last column of what of a triangle lies in some rows; the last before the first where nothing does.</summary>
    private (int From, int To) Columns(in Banded banded, int from, int until)
    {
        var (left, right) = banded.Between(_raster.Bottom + from * _raster.Size - Margin, _raster.Bottom + until * _raster.Size + Margin);
        return left <= right ? ((int)((left - Margin - _raster.Left) * _each), (int)((right + Margin - _raster.Left) * _each)) : (0, -1);
    }

    /// <summary>Whether all squares of some blocks beside each other are touched.</summary>
    private bool IsFull(byte[] counts, int band, (int From, int To) columns)
    {
        if (columns.To < columns.From) return true;
        var (first, last) = (columns.From / Word, columns.To / Word);
        _work += 1 + (last - first) / Looks;
        return !counts.AsSpan(band * _words + first, last + 1 - first).ContainsAnyExcept((byte)Band);
    }

    private void Fill(int row, (int From, int To) columns)
    {
        var (from, to) = columns;
        if (to < from) return;
        var (word, last) = (from / Word, to / Word);
        var (head, tail) = (ulong.MaxValue << from, ulong.MaxValue >> ~to);
        if (word == last)
        {
            Set(row, word, head & tail);
            return;
        }
        Set(row, word, head);
        for (word++; word < last; word++) Set(row, word, ulong.MaxValue);
        Set(row, last, tail);
    }

    private void Set(int row, int word, ulong bits)
    {
        var block = row / Band * _words + word;
        ref var to = ref _bits[block * Band + row % Band];
        if (to == ulong.MaxValue) return;
        to |= bits;
        if (to == ulong.MaxValue && ++_fullRows[block] == Band) _fullBlocks[row / Tower * _words + word]++;
    }

    /// <summary>Four squares as one.</summary>
    private TouchedCells Coarser()
    {
        var coarse = new TouchedCells(_raster with { Size = 2 * _raster.Size, Side = _raster.Side / 2 });
        for (var row = 0; row < coarse._raster.Side; row++)
        {
            var one = Row(2 * row);
            var other = Row(2 * row + 1);
            for (var word = 0; word < coarse._words; word++)
                coarse.Set(row, word, Paired(one[2 * word] | other[2 * word])
                    | Paired(one[2 * word + 1] | other[2 * word + 1]) << Word / 2);
        }
        return coarse;
    }

    /// <summary>Whether either of two bits is set, for every pair, in the lower half of a word: unshuffled as in H. S. Warren, "Hacker's
    /// Delight", 2002, chapter 7-2; from memory.</summary>
    private static ulong Paired(ulong bits)
    {
        bits = (bits | bits >> 1) & 0x5555555555555555;
        bits = (bits | bits >> 1) & 0x3333333333333333;
        bits = (bits | bits >> 2) & 0x0F0F0F0F0F0F0F0F;
        bits = (bits | bits >> 4) & 0x00FF00FF00FF00FF;
        bits = (bits | bits >> 8) & 0x0000FFFF0000FFFF;
        return (bits | bits >> 16) & 0x00000000FFFFFFFF;
    }

    /// <summary>With the squares round every square.</summary>
    private TouchedCells Grown()
    {
        var grown = new TouchedCells(_raster);
        var (before, here, after) = (Row(0), Row(0), Row(0));
        for (var row = 0; row < _raster.Side; row++)
        {
            (before, here, after) = (here, after, Row(Math.Min(_raster.Side - 1, row + 1)));
            ulong carried = 0, all = before[0] | here[0] | after[0];
            for (var word = 0; word < _words; word++)
            {
                var next = word + 1 < _words ? before[word + 1] | here[word + 1] | after[word + 1] : 0;
                grown.Set(row, word, all | all << 1 | carried | all >> 1 | next << (Word - 1));
                (carried, all) = (all >> (Word - 1), next);
            }
        }
        return grown;
    }

    private ulong[] Row(int row)
    {
        var bits = new ulong[_words];
        for (var (word, at) = (0, row / Band * _words * Band + row % Band); word < _words; word++, at += Band) bits[word] = _bits[at];
        return bits;
    }
}
