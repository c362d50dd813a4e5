using System.Globalization;

namespace Tensarch.Server.Hosting;

/// <summary>Where a page of newest-first rows ended: the instant and the id of its last row, so that rows of one instant are neither lost nor doubled.</summary>
public readonly record struct Cursor(DateTimeOffset At, Guid Id)
{
    public override string ToString() => $"{At.UtcTicks}_{Id:N}";

    /// <returns>None for a text that is no cursor: then the list begins at its start.</returns>
    public static Cursor? Parse(string? text)
    {
        var parts = text?.Split('_');
        return
            parts is [var ticks, var id]
            && long.TryParse(ticks, NumberStyles.None, CultureInfo.InvariantCulture, out var at)
            && at <= DateTime.MaxValue.Ticks
            && Guid.TryParse(id, out var guid)
            ? new(new DateTimeOffset(at, TimeSpan.Zero), guid)
            : null;
    }
}
