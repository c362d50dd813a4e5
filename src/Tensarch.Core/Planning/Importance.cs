namespace Tensarch.Core.Planning;

/// <summary>What goes first when a session gets shorter: companions, further work, practice; the core and a test that is due last.</summary>
internal static class Importance
{
    public static int Of(PlannedDrill planned) =>
        planned.Reason.Code switch
        {
            "companion" => 0,
            "stageWork" => 1,
            "strengthForStage" => 2,
            "practice" or "practiceReps" => 3,
            "attempt" => 4,
            "wayOut" => 5,
            "core" or "standIn" => 6,
            _ => 7,
        };
}
