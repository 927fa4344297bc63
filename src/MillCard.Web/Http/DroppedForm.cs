using MillCard.Core.Packets;

namespace MillCard.Web.Http;

/// <summary>A form with files that were dropped on a page.</summary>
/// <param name="Files">The files, their paths as their names.</param>
/// <param name="Form">The other fields.</param>
internal sealed record DroppedForm(IReadOnlyList<DroppedFile> Files, IFormCollection Form);

/// <summary>Reads what was dropped.</summary>
internal static class DroppedForms
{
    /// <summary>What was dropped, within its bounds; null where the body is no form.</summary>
    /// <exception cref="FormRefusedException">It is broken or larger.</exception>
    public static async Task<DroppedForm?> ReadDroppedAsync(this HttpRequest request, CancellationToken stop)
    {
        if (!request.HasFormContentType) return null;
        var form = await request.ReadBoundedFormAsync(Bounds.Packet, Bounds.Packet, Bounds.DroppedFiles, stop);
        if (form.Files.Count > Bounds.DroppedFiles) throw new FormRefusedException(Bounds.DroppedFiles, Bounds.Packet);
        var files = new List<DroppedFile>();
        foreach (var file in form.Files) files.Add(new DroppedFile(file.FileName, await file.BytesAsync(stop)));
        return new DroppedForm(files, form);
    }
}
