using Tensarch.Core.Planning;
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
    public bool Refuses(Drill drill, string variant, DayBars then, DayBars now, double breathSeconds) =>
        Live && !WithSignal && !drill.MayBeDone(variant, then, breathSeconds) && !drill.MayBeDone(variant, now, breathSeconds);
}
