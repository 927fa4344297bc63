namespace MillCard.Core.Flavours;

/// <summary>What a command means to the simulated machine.</summary>
public enum Meaning
{
    /// <summary>Nothing that the simulated machine shows: a message, a report.</summary>
    None,
    /// <summary>A straight move.</summary>
    Move,
    /// <summary>An arc, clockwise.</summary>
    ArcClockwise,
    /// <summary>An arc, counter-clockwise.</summary>
    ArcCounterClockwise,
    /// <summary>A cubic curve.</summary>
    Spline,
    /// <summary>Arcs lie in X and Y.</summary>
    PlaneXy,
    /// <summary>Arcs lie in Z and X.</summary>
    PlaneZx,
    /// <summary>Arcs lie in Y and Z.</summary>
    PlaneYz,
    /// <summary>Towards a place until a probe answers.</summary>
    ProbeHere,
    /// <summary>Says where the head is.</summary>
    KinematicPosition,
    /// <summary>Unit of temperatures.</summary>
    TemperatureUnit,
    /// <summary>What follows is written into a file and not run.</summary>
    FileBegin,
    /// <summary>What follows is run again.</summary>
    FileEnd,
    /// <summary>Moves, waits or repeats in a way that the simulated machine does not follow; that is said.</summary>
    Unfollowed,
    /// <summary>A pause of a given length.</summary>
    Dwell,
    /// <summary>To the end-stops.</summary>
    Home,
    /// <summary>Probing the bed.</summary>
    Level,
    /// <summary>The bed's mesh on or off.</summary>
    Mesh,
    /// <summary>The bed's mesh forgotten.</summary>
    MeshDrop,
    /// <summary>To a place of rest.</summary>
    Park,
    /// <summary>Lengths in inches from here on.</summary>
    Inches,
    /// <summary>Lengths in mm from here on.</summary>
    Millimetres,
    /// <summary>Words are positions.</summary>
    Absolute,
    /// <summary>Words are distances.</summary>
    Relative,
    /// <summary>E words are positions.</summary>
    ExtrusionAbsolute,
    /// <summary>E words are lengths.</summary>
    ExtrusionRelative,
    /// <summary>Names the present position.</summary>
    SetPosition,
    /// <summary>Shifts what words count from: a workplace, an offset.</summary>
    WorkOffset,
    /// <summary>Sets what words count from in a workplace.</summary>
    WorkOffsetSet,
    /// <summary>What the machine counts at its end-stops.</summary>
    HomeOffset,
    /// <summary>What the machine counts at its end-stops from the next homing on.</summary>
    HomeOffsetLater,
    /// <summary>Remembers where the head is.</summary>
    RememberPlace,
    /// <summary>Back to where the head was.</summary>
    ReturnPlace,
    /// <summary>Shifts Z a little.</summary>
    BabyStep,
    /// <summary>Remembers modes of counting.</summary>
    SaveState,
    /// <summary>Back to remembered modes of counting.</summary>
    RestoreState,
    /// <summary>Nozzle towards a temperature.</summary>
    SetNozzle,
    /// <summary>Nozzle towards a temperature, and wait.</summary>
    WaitNozzle,
    /// <summary>Bed towards a temperature.</summary>
    SetBed,
    /// <summary>Bed towards a temperature, and wait.</summary>
    WaitBed,
    /// <summary>Housing towards a temperature.</summary>
    SetChamber,
    /// <summary>Housing towards a temperature, and wait.</summary>
    WaitChamber,
    /// <summary>Temperatures and offset of a tool; without a tool, pulling back as set in the firmware.</summary>
    ToolSettings,
    /// <summary>A heater by its name.</summary>
    HeaterByName,
    /// <summary>A wait for a heater by its name.</summary>
    WaitByName,
    /// <summary>All heaters off.</summary>
    HeatersOff,
    /// <summary>Wait for every temperature asked for.</summary>
    WaitAll,
    /// <summary>Part fan on.</summary>
    FanOn,
    /// <summary>Part fan off.</summary>
    FanOff,
    /// <summary>Speed of a fan that is named.</summary>
    FanByName,
    /// <summary>Motors without current.</summary>
    MotorsOff,
    /// <summary>Another tool.</summary>
    Tool,
    /// <summary>Another tool, by its name.</summary>
    ToolByName,
    /// <summary>Where a tool's tip is.</summary>
    ToolOffset,
    /// <summary>Ends the print: heaters and motors off.</summary>
    Stop,
    /// <summary>Wait until all moves are done.</summary>
    Finish,
    /// <summary>Waits for somebody.</summary>
    Pause,
    /// <summary>Waits for another filament.</summary>
    FilamentChange,
    /// <summary>Pulls filament back by the firmware's own figure.</summary>
    FirmwareRetract,
    /// <summary>Pushes it in again.</summary>
    FirmwarePrime,
    /// <summary>The firmware's own figure for pulling back.</summary>
    FirmwareRetractSet,
    /// <summary>The firmware's own figure for pushing in again.</summary>
    FirmwarePrimeSet,
    /// <summary>Steps per mm.</summary>
    StepsPerMm,
    /// <summary>Highest speed by axis.</summary>
    LimitSpeed,
    /// <summary>Highest acceleration by axis.</summary>
    LimitAcceleration,
    /// <summary>Highest speed, acceleration and corner speed along the way.</summary>
    VelocityLimit,
    /// <summary>Acceleration by kind of move.</summary>
    SetAcceleration,
    /// <summary>Corner speeds, in the flavour's unit.</summary>
    SetCorner,
    /// <summary>Corner speeds in mm/s where the flavour's other command takes mm/min.</summary>
    SetCornerSeconds,
    /// <summary>Junction deviation.</summary>
    SetJunction,
    /// <summary>Share of all speeds.</summary>
    SpeedOverride,
    /// <summary>Share of all feeds.</summary>
    FlowOverride,
    /// <summary>Pressure compensation.</summary>
    PressureCompensation,
    /// <summary>Filament diameter.</summary>
    FilamentDiameter,
    /// <summary>Whether a cold nozzle may feed.</summary>
    ColdExtrusion,
    /// <summary>Whether moves are held within the travel.</summary>
    SoftEndStops,
    /// <summary>Geometry of the machine.</summary>
    Geometry,
    /// <summary>Values that are found once and then kept: control values, saved settings.</summary>
    Tuning,
    /// <summary>Marks parts.</summary>
    PartLabel,
    /// <summary>Mode of two carriages.</summary>
    CarriageMode,
    /// <summary>Runs a file of commands that the card does not hold.</summary>
    MacroCall,
    /// <summary>Ends a file of commands.</summary>
    MacroEnd,
}
