using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>
/// Whether a set that is told is taken. What is refused is what is being done now under a bar that stood when it was begun, unless a body spoke
/// with it; everything else is taken, loads the body, and proves what <see cref="StudentState"/> says it does. Source: laws of a session, 7.
/// </summary>
/// <param name="Live">It was done just now.</param>
/// <param name="WithSignal">A signal of the body is told with it.</param>
public readonly record struct Admission(bool Live, bool WithSignal)
{
    /// <param name="then">The bars of the instant at which it was done.</param>
    /// <param name="now">The bars of today.</param>
    /// <param name="loads">Of what was done, as long and as hard as it was: what is light stays allowed where only light work is.</param>
    public bool Refuses(IReadOnlyDictionary<LoadTag, LoadLevel> loads, DayBars then, DayBars now) =>
        Live && !WithSignal && !then.Allow(loads) && !now.Allow(loads);
}
