namespace MillCard.Web.Paper;

/// <summary>Scales of drawings, ISO 5455.</summary>
internal static class Scales
{
    private static readonly double[] Reductions = [1, 2, 5, 10, 20, 50, 100];

    /// <summary>The largest scale at which a thing fits.</summary>
    /// <param name="width">Its width, mm.</param>
    /// <param name="height">Its height, mm.</param>
    /// <param name="room">Room for it, mm of the paper.</param>
    /// <returns>How many times smaller it is drawn.</returns>
    public static double Fitting(double width, double height, (double Width, double Height) room) =>
        Reductions.FirstOrDefault(by => width / by <= room.Width && height / by <= room.Height, Reductions[^1]);

    /// <summary>As it is written.</summary>
    public static string Said(double by) => Invariant($"1:{by:0}");
}
