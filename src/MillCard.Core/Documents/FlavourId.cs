using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>Firmware dialects that a card can name. The dialects' own names are the trade's.</summary>
public enum FlavourId
{
    /// <summary>Marlin.</summary>
    [Word("Marlin")] Marlin,
    /// <summary>RepRapFirmware.</summary>
    [JsonStringEnumMemberName("reprapfirmware"), Word("RepRapFirmware")] RepRapFirmware,
    /// <summary>Klipper.</summary>
    [Word("Klipper")] Klipper,
    /// <summary>Repetier.</summary>
    [Word("Repetier")] Repetier,
    /// <summary>Smoothieware.</summary>
    [Word("Smoothieware")] Smoothieware,
    /// <summary>Plain RepRap: the common subset, for the rest.</summary>
    [JsonStringEnumMemberName("reprap"), Word("plain RepRap")] RepRap,
}
