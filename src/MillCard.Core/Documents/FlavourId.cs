using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>Firmware dialects that a card can name. The dialects' own names are the trade's.</summary>
public enum FlavourId
{
    /// <summary>Marlin.</summary>
    Marlin,
    /// <summary>RepRapFirmware.</summary>
    [JsonStringEnumMemberName("reprapfirmware")] RepRapFirmware,
    /// <summary>Klipper.</summary>
    Klipper,
    /// <summary>Repetier.</summary>
    Repetier,
    /// <summary>Smoothieware.</summary>
    Smoothieware,
    /// <summary>Plain RepRap: the common subset, for the rest.</summary>
    [JsonStringEnumMemberName("reprap")] RepRap,
}
