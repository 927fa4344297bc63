namespace MillCard.Web.Http;

/// <summary>A form is broken or passes one of its bounds; the framework tells which in words alone, so all bounds are named.</summary>
internal sealed class FormRefusedException(Exception inner) : Exception(
    $"This form is broken or larger than what is taken: at most {Bounds.JobFiles} fields and files, {Bounds.Document >> 20} MB in a field, "
        + $"{Bounds.Mesh >> 20} MB in a file, {LongestName} characters in a field's name.", inner)
{
    /// <summary>Longest name of a field.</summary>
    public const int LongestName = 200;
}
