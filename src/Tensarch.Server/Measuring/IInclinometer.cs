namespace Tensarch.Server.Measuring;

/// <summary>What a digital inclinometer says: an angle, or that it cannot be reached.</summary>
/// <param name="At">Since the stream began.</param>
/// <param name="AngleDeg">None while the device is lost.</param>
public readonly record struct DeviceSample(TimeSpan At, double? AngleDeg);

/// <summary>
/// A digital inclinometer that streams about 20 angles a second. The one that ships is a simulated stand-in; a real one takes its place
/// behind this interface.
/// </summary>
public interface IInclinometer
{
    string Name { get; }

    /// <summary>Whether this server has such a device at all.</summary>
    bool IsPresent { get; }

    /// <summary>Angles until the reader stops; a device that is lost says so and goes on when it is back.</summary>
    IAsyncEnumerable<DeviceSample> Read(Guid studioId, CancellationToken ct);
}
