using System.Text;
using MillCard.Core.Files;
using MillCard.Core.Geometry;
using Xunit;

namespace MillCard.Core.Tests;

public class OutlineTests
{
    private static ReadOutline Read(string text) => OutlineFile.Read(Encoding.UTF8.GetBytes(text));

    private static double Area(ReadOutline outline)
    {
        var sum = 0.0;
        for (var i = 0; i < outline.Points.Length; i++)
        {
            var (a, b) = (outline.Points[i], outline.Points[(i + 1) % outline.Points.Length]);
            sum += a[0] * b[1] - b[0] * a[1];
        }
        return Math.Abs(sum) / 2;
    }

    // closed forms of the shapes that the path data draw (SVG 1.1, chapter 8)
    [Theory]
    [InlineData("M0 0 H100 V50 H0 Z", 5000)]
    [InlineData("m10,10 100,0 0,50 -100,0z", 5000)]
    [InlineData("M 50 0 A 50 50 0 1 1 50 100 A 50 50 0 1 1 50 0 Z", Math.PI * 2500)]
    [InlineData("M50 0a50 50 0 11 0 100a50 50 0 110-100z", Math.PI * 2500)]
    [InlineData("M0 0L10 0L10 10L0 10ZM20 0h30v30h-30z", 900)]
    [InlineData("M0,0 Q50,100 100,0 Z", 100 * 100 / 3.0)]
    [InlineData("M0,0 C0,100 100,100 100,0 Z", 0.6 * 100 * 100)]
    public void Path_data_draws_what_it_says(string path, double area) => Assert.Equal(1, Area(Read(path)) / area, 0.005);

    [Theory, InlineData("M0 0 L"), InlineData("M0 0 L1 x"), InlineData("M"), InlineData("M0 0 10"), InlineData("M0 0"),
        InlineData("M0 0L10 10 20 20Z"), InlineData("M0 0L10 10 10 0 0 10Z")]
    public void What_is_no_outline_is_refused(string path) => Assert.Throws<OutlineException>(() => Read(path));

    [Fact]
    public void A_drawing_tells_its_unit_and_stands_upright()
    {
        var outline = Read("<svg xmlns='http://www.w3.org/2000/svg' width='100mm' viewBox='0 0 200 200'><rect x='1' y='1' width='5' "
            + "height='5'/><path d='M0 0 H200 V100 Z'/></svg>");
        Assert.Equal(0.5, outline.MillimetresPerUnit);
        Assert.Equal([200, 100], outline.Size);
        // Y of a drawing points down: its corner at the right below comes to lie at the front
        Assert.Contains(outline.Points, p => p is [200, 0]);
    }

    [Theory]
    [InlineData("<!DOCTYPE svg [<!ENTITY a 'aaaa'>]><svg><path d='M0 0h1v1z'/></svg>")]
    [InlineData("<svg><path d='M0 0h1v1z'")]
    [InlineData("<svg><g style='fill:none;transform:scale(2)'><path d='M0 0h1v1z'/></g></svg>")]
    [InlineData("<svg><g transform='bend(2)'><path d='M0 0h1v1z'/></g></svg>")]
    [InlineData("<svg><use href='other.svg#a'/></svg>")]
    [InlineData("<svg><use href='#none'/></svg>")]
    [InlineData("<svg><g id='a'><use href='#a'/></g></svg>")]
    [InlineData("<svg><svg viewBox='0 0 1 1'><path d='M0 0h1v1z'/></svg></svg>")]
    [InlineData("<svg><rect width='10%' height='5'/></svg>")]
    [InlineData("<svg><defs><rect width='10' height='5'/></defs></svg>")]
    [InlineData("<html/>")]
    [InlineData("<svg/>")]
    public void A_drawing_with_a_DTD_broken_or_without_an_outline_is_refused(string drawing) =>
        Assert.Throws<OutlineException>(() => Read(drawing));

    // Areas and sizes by hand, shapes after SVG 1.1 chapters 7 and 9: the determinant of a transform scales the area.
    [Theory]
    [InlineData("<circle cx='10' cy='10' r='50'/>", 7853.98, 100, 100)]
    [InlineData("<ellipse cx='0' cy='0' rx='40' ry='20'/>", 2513.27, 80, 40)]
    [InlineData("<rect width='100' height='60' rx='10'/>", 6000 - (4 - Math.PI) * 100, 100, 60)]
    [InlineData("<rect width='100' height='60' rx='10' ry='20'/>", 6000 - (4 - Math.PI) * 200, 100, 60)]
    [InlineData("<rect width='100' height='60' ry='500'/>", 6000 - (4 - Math.PI) * 50 * 30, 100, 60)]
    [InlineData("<polyline points='0,0 100,0 100,50'/>", 2500, 100, 50)]
    [InlineData("<g transform='translate(30,40) scale(2)'><rect width='10' height='5'/></g>", 200, 20, 10)]
    [InlineData("<g transform='scale(2)'><g transform='rotate(90 5 5)'><rect width='10' height='4'/></g></g>", 160, 8, 20)]
    [InlineData("<rect width='10' height='10' transform='skewX(45)'/>", 100, 20, 10)]
    [InlineData("<rect width='10' height='10' transform='matrix(1 0 0 3 7 7)'/>", 300, 10, 30)]
    [InlineData("<rect width='10' height='10' transform='scale(-1,2)'/>", 200, 10, 20)]
    [InlineData("<defs><rect id='r' width='10' height='10'/></defs><use href='#r' x='5' transform='scale(3)'/>", 900, 30, 30)]
    [InlineData("<symbol id='s'><g><circle r='1'/><circle r='5'/></g></symbol><use href='#s'/>", 78.54, 10, 10)]
    [InlineData("<svg x='5' y='6'><rect width='10' height='3'/></svg><g display='none'><rect width='99' height='99'/></g>", 30, 10, 3)]
    public void Shapes_groups_and_transforms_draw_what_they_say(string shapes, double area, double width, double depth)
    {
        var outline = Read($"<svg xmlns='http://www.w3.org/2000/svg'>{shapes}</svg>");
        Assert.Equal(1, Area(outline) / area, 0.003);
        Assert.Equal(width, outline.Size[0], 0.01);
        Assert.Equal(depth, outline.Size[1], 0.01);
    }

    [Theory, InlineData("M0 0L10 10 10 0 0 10Z", "at 5, 5"), InlineData("M0 0L40 0 40 30 10 -10 0 30Z", "crosses itself at")]
    public void An_outline_that_crosses_itself_is_told_as_that(string path, string where)
    {
        var refused = Assert.Throws<OutlineException>(() => Read(path));
        Assert.Contains("crosses itself", refused.Message, StringComparison.Ordinal);
        Assert.Contains(where, refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_mesh_gives_its_outline_from_above()
    {
        var outline = OutlineFile.Read(Stl.Write(Solids.Box(120, 80, 3)));
        Assert.Equal(9600, Area(outline), 1);
        Assert.Equal(1, outline.MillimetresPerUnit);
    }
}
