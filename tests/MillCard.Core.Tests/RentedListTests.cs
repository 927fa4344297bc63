using CsCheck;
using MillCard.Core.Geometry;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Lists in rented memory.</summary>
public class RentedListTests
{
    [Fact]
    public void It_holds_what_was_added_since_it_was_cleared() =>
        Gen.Select(Gen.Int[0, 40], Gen.Int.Array[1, 300], Gen.Int.Array[1, 300]).Sample((capacity, before, after) =>
        {
            using var list = new RentedList<int>(capacity);
            foreach (var item in before) list.Add(item);
            Assert.Equal((before.Length, before[^1]), (list.Count, list.Last));
            Assert.Equal(before, list.ToArray());
            list.Clear();
            foreach (var item in after) list.Add(item);
            Assert.Equal(after, list.ToArray());
        });
}
