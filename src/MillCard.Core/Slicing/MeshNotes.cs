using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing;

/// <summary>What was noticed of a part's mesh while it was cut.</summary>
internal static class MeshNotes
{
    /// <summary>Holes, repeated faces, bodies that overlap.</summary>
    public static IEnumerable<Finding> Of(PartToSlice part, PartSections sections)
    {
        var (name, layers) = (part.Part.Name, sections.Regions.Length);
        if (sections.Unclosed > 0)
            yield return new Finding("open-mesh", Severity.Caution,
                $"{name}: {sections.Unclosed} outlines of its layers have gaps over {CrossSections.Gap} mm and were left out.",
                "The mesh has holes; what is missing there is not printed.");
        else if (sections.OpenEdges > 0)
            yield return new Finding("open-edges", Severity.Note,
                $"{name}: {sections.OpenEdges} edges of its mesh have no partner; every outline was closed all the same.",
                "The mesh is not quite closed. Look through the layers whether something is missing.");
        if (part.Mesh.RepeatedFaces is > 0 and var repeated)
            yield return new Finding("repeated-faces", Severity.Note,
                $"{name}: {repeated} faces stand in its file more than once; each was taken once.",
                "A body that was exported twice, or a broken export: look whether the part is whole.");
        if (sections.Crossing > 0)
            yield return new Finding("overlapping-mesh", Severity.Note,
                $"{name}: on {sections.Crossing} of {layers} layers its outlines cross each other; what lies in several counts once.",
                "The mesh is made of bodies that overlap, or folds into itself.");
    }

    /// <summary>A spiral that has more than one outline to follow; null where it has one everywhere.</summary>
    public static Finding? Spiral(PartToSlice part, IEnumerable<Shape> regions) =>
        regions.Any(r => r.NumGeometries > 1 || Plane.Polygons(r).Any(p => p.NumInteriorRings > 0))
            ? new Finding("spiral-of-several", Severity.Caution,
                $"{part.Part.Name} has more than one outline on some layers; a spiral follows the largest alone.",
                "One continuous wall has one outline. The others are left out.", "/recipe/spiral")
            : null;
}
