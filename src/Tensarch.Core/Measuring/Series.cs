namespace Tensarch.Core.Measuring;

public enum Mode
{
    Passive,
    Active,
}

/// <summary>Warm: within 20 minutes after at least 8 minutes of warm-up. Cold: no training for 4 hours. Nothing between is taken.</summary>
public enum Warmth
{
    Warm,
    Cold,
}

public enum Instrument
{
    Tape,
    BlockStack,
    Goniometer,
    Inclinometer,
    Picture,
    Stopwatch,
    Count,
}

/// <summary>What makes two readings comparable: only readings of one series are ever put side by side.</summary>
public sealed record Series(string Measure, Side? Side, Mode Mode, string? Level, Warmth Warmth, string? Standard);
