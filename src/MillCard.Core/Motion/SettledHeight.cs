using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>What decides a layer's height on a machine.</summary>
public enum HeightFrom
{
    /// <summary>The recipe, in mm.</summary>
    Said,
    /// <summary>A number of full steps of Z.</summary>
    Rungs,
    /// <summary>The whole step nearest to what the recipe says.</summary>
    NearestRung,
    /// <summary>The half step nearest to what the recipe says.</summary>
    NearestHalfRung,
    /// <summary>The recipe, because the ladder is too coarse to lie on.</summary>
    LadderTooCoarse,
    /// <summary>The recipe, because the ladder is not known.</summary>
    LadderUnknown,
}

/// <summary>A layer's height as it is printed on one machine.</summary>
/// <param name="Height">mm; null where neither recipe nor ladder says one.</param>
/// <param name="From">What decides it.</param>
/// <param name="Why">A sentence with the numbers; null where the recipe's mm hold as they are.</param>
public sealed record SettledHeight(double? Height, HeightFrom From, Sentence? Why = null)
{
    /// <summary>A whole step counts as near within this share of the height; beyond it a half step is looked for.</summary>
    private const double Near = 0.1;

    /// <summary>A ladder coarser than this share of the nozzle leaves too few heights to choose from; common practice, no source.</summary>
    private const double Coarse = 0.25;

    /// <summary>Settles a height.</summary>
    /// <param name="height">What the recipe says, mm.</param>
    /// <param name="rungs">What it says in full steps of Z; goes before mm.</param>
    /// <param name="onRung">Whether mm mean about so much, on the ladder.</param>
    /// <param name="ladder">The machine's; null where it is not known.</param>
    /// <param name="nozzle">Diameter of the nozzle, mm; null where it is not known.</param>
    public static SettledHeight Of(double? height, int? rungs, bool onRung, Ladder? ladder, double? nozzle)
    {
        if (rungs is { } count && ladder is not null && Rounded(count * ladder.FullStep) is var comes)
            return new(comes, HeightFrom.Rungs, Sentence.Of(
                $"{count} {(count == 1 ? "step" : "steps")} of Z, {ladder.FullStep:0.####} mm each, are {comes:0.####} mm."));
        if (height is not { } about || !onRung) return new(height, rungs is null ? HeightFrom.Said : HeightFrom.LadderUnknown);
        if (ladder is null)
            return new(about, HeightFrom.LadderUnknown,
                Sentence.Of($"The steps of Z are not known: {about:0.####} mm are taken as they are."));
        if (nozzle is { } bore && ladder.FullStep > Coarse * bore + 1e-9)
            return new(about, HeightFrom.LadderTooCoarse, Sentence.Of(
                $"A step of Z is {ladder.FullStep:0.####} mm, more than a quarter of the {bore:0.##} mm nozzle: {about:0.####} "
                    + $"mm are taken as they are."));
        var whole = ladder.Nearest(about).Height;
        if (Math.Abs(whole - about) <= Near * about + 1e-9)
            return new(whole, HeightFrom.NearestRung,
                Sentence.Of($"About {about:0.####} mm: {whole:0.####} mm is the nearest whole step of Z."));
        var half = Rounded(Math.Max(1, Math.Round(about / (ladder.FullStep / 2))) * ladder.FullStep / 2);
        return new(half, HeightFrom.NearestHalfRung, Sentence.Of(
            $"About {about:0.####} mm: {half:0.####} mm is the nearest half step of Z; the nearest whole one, {whole:0.####}, "
                + $"is too far off."));
    }

    private static double Rounded(double height) => Math.Round(height, 6);
}
