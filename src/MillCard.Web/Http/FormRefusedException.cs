namespace MillCard.Web.Http;

/// <summary>A form is broken or passes one of its bounds; the framework tells which in words alone, so all bounds are named.</summary>
/// <param name="fields">Fields and files that are taken.</param>
/// <param name="file">Bytes of a file that are taken.</param>
/// <param name="inner">What the framework says; null where the bound is our own.</param>
internal sealed class FormRefusedException(int fields, long file, Exception? inner = null) : Exception(
    $"This form is broken or larger than what is taken: at most {fields} fields and files, {Bounds.Document >> 20} MB in a field, "
        + $"{file >> 20} MB in a file, {LongestName} characters in a field's name.", inner)
{
    /// <summary>Longest name of a field.</summary>
    public const int LongestName = 200;
}
