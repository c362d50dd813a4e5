using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>One student: the row, and what the core made of the facts.</summary>
/// <param name="Facts">How many writes on which verdicts rest there were about the student when their facts were read.</param>
/// <param name="LeftOut">Stored entries that cannot be reckoned with and count for nothing.</param>
public sealed record Standing(StudentRow Student, StudentState State, long Facts, int LeftOut)
{
    public ScreenView Screen => State.Bars.Screen(State.Now.Day);

    public bool Screened => Screen.State == ScreenState.Current;

    public DayBars Bars => State.Today;
}
