using Microsoft.Data.Sqlite;

namespace Tensarch.Fill;

/// <summary>
/// Makes a thousand students out of the first one of a database, each with as many years of training behind them: three sessions a week of
/// six logged rounds, and the six measures of the front split on both sides every other week, three trials each. Where the first one is on a
/// programme, so are all: so many versions of its plan, its sessions to come, one that was missed yesterday for every tenth, and every session
/// that was trained keeps what was planned of it.
/// </summary>
internal static class Seasons
{
    private const string NewId =
        "upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))";
    private const string Student = "printf('%08X-0000-4000-8000-%012X', n, n)";
    private const long Day = TimeSpan.TicksPerDay;

    public static void Fill(string path, int students, int years, int versions)
    {
        using var db = new SqliteConnection($"Data Source={path}");
        db.Open();
        Run("PRAGMA journal_mode = WAL; PRAGMA synchronous = OFF; PRAGMA foreign_keys = OFF;");
        Run("CREATE TEMP TABLE One AS SELECT Id FROM Students ORDER BY CreatedAt LIMIT 1;");
        Run(
            $"CREATE TEMP TABLE Many(n); WITH RECURSIVE c(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM c WHERE n < {students - 1}) INSERT INTO Many SELECT n FROM c;"
        );
        Run(
            "CREATE TEMP TABLE Planned AS SELECT coalesce((SELECT p.PlanJson FROM Sessions s JOIN PlanVersions p ON p.SessionId = s.Id AND p.Number = s.Plan WHERE s.StudentId IN One AND NOT EXISTS (SELECT 1 FROM Trainings t WHERE t.SessionId = s.Id) ORDER BY s.Date LIMIT 1), '') AS Json;"
        );
        foreach (var table in new[] { "Students", "Answers", "Screenings", "Skills", "Decisions", "Board", "Roster" })
            Copy(table);
        Run($"UPDATE Students SET Name = 'Student ' || substr(Id, 33) WHERE Id NOT IN One;");

        var (now, sessions) = (DateTimeOffset.UtcNow.UtcTicks, years * 156);
        Run(
            $"""
            CREATE TEMP TABLE Weeks(w); WITH RECURSIVE c(w) AS (SELECT 1 UNION ALL SELECT w + 1 FROM c WHERE w < {sessions}) INSERT INTO Weeks SELECT w FROM c;
            CREATE TEMP TABLE Drills(Drill, Variant, Side, r);
            INSERT INTO Drills VALUES ('low-lunge', 'deep', 'Left', 1), ('low-lunge', 'deep', 'Right', 1), ('split-support', 'high-only', 'Left', 2),
                ('split-support', 'high-only', 'Right', 2), ('pyramid-fold', 'floor', 'Left', 3), ('pyramid-fold', 'floor', 'Right', 3);
            CREATE TEMP TABLE Measured(Measure, Mode, Standard, Side, Value, Sem);
            INSERT INTO Measured SELECT m.column1, m.column2, m.column3, s.column1, m.column4, m.column5 FROM (VALUES
                ('passive-slr', 'Passive', NULL, 100, 2.5), ('active-slr', 'Active', NULL, 76, 2.5), ('hip-extension', 'Passive', NULL, 14, 2.5),
                ('lunge-chest-gap', 'Passive', NULL, 6, 1), ('pyramid-nose-gap', 'Passive', NULL, 14, 1.5), ('front-split-gap', 'Passive', 'square', 34, 1)) m
                CROSS JOIN (VALUES ('Left'), ('Right')) s;
            """
        );
        Run(
            $"""
            CREATE TEMP TABLE Past AS SELECT {NewId} AS Id, s.StudioId AS StudioId, s.Id AS StudentId, d.By AS By, date('now', '-' || (w * 7 / 3) || ' days') AS On_,
                {now} - w * {Day * 7 / 3} AS At
            FROM Students s CROSS JOIN Weeks CROSS JOIN (SELECT By FROM Decisions LIMIT 1) d;
            INSERT INTO PlanVersions (SessionId, Number, StudioId, PlanJson, Skill, Beside, TotalSeconds, FirstSide, Why, At, By)
            SELECT Id, 1, StudioId, (SELECT Json FROM Planned), 'front-split', '[]', 3000, 'Left', 'made', At, By FROM Past;
            INSERT INTO Sessions (Id, StudioId, StudentId, Date, Version, Plan, Sequence, CreatedAt, By, BodyHash)
            SELECT Id, StudioId, StudentId, On_, 1, 1, 0, At, By, '' FROM Past;
            INSERT INTO Trainings (SessionId, StudioId, StudentId, Plan, StartedAt, StartedOn, EndedAt, Worked)
            SELECT Id, StudioId, StudentId, 1, At, On_, At + 30000000000, (SELECT json_group_array(Drill || '/' || Variant || '/' || Side) FROM Drills) FROM Past;
            INSERT INTO Sets (Id, StudioId, StudentId, SessionId, Drill, Variant, Side, Round, Seconds, Quality, At, Day, By, BodyHash)
            SELECT {NewId}, x.StudioId, x.StudentId, x.Id, Drill, Variant, Side, r, 25 + abs(random() % 10), 4, x.At, x.On_, x.By, ''
            FROM Past x CROSS JOIN Drills;
            INSERT INTO Readings (Id, StudioId, StudentId, Measure, Side, Mode, Warmth, Standard, Instrument, Trials, TrialsAt, Marks, Compensations, Confirmed, Disqualified,
                Sem, SemDof, Tau, TauPairs, Resolution, Value, StandardError, TakenAt, TakenBy, BodyHash)
            SELECT {NewId}, s.StudioId, s.Id, Measure, Side, Mode, 'Warm', Standard, 'Goniometer',
                '[' || Value || ',' || (Value + abs(random() % 20) / 10.0) || ',' || (Value - abs(random() % 20) / 10.0) || ']', '[]', '[]', '[]', 0, 0,
                Sem, 0, Sem / 2, 0, 0, Value, Sem * 0.76, {now} - w * {Day * 14}, d.By, ''
            FROM Students s CROSS JOIN Measured CROSS JOIN Weeks CROSS JOIN (SELECT By FROM Decisions LIMIT 1) d WHERE w <= {years * 26};
            UPDATE Board SET DueAt = 0, LineJson = '';
            UPDATE Roster SET DueAt = 0, LineJson = '';
            """
        );
        // Everybody was asked about their health long ago, but three of them, who answered today.
        Run(
            $"""
            UPDATE Answers SET At = At - {200 * Day} WHERE substr(StudentId, 34) > '003';
            UPDATE Screenings SET At = At - {200 * Day}, "On" = date("On", '-200 days') WHERE substr(StudentId, 34) > '003';
            """
        );
        Programmes(versions);
        Console.WriteLine(
            $"{Count("Students")} students, {Count("Plans")} versions of plans, {Count("Sessions")} sessions, {Count("Sets")} sets, {Count("Readings")} readings"
        );

        void Programmes(int versions)
        {
            if (Count("Plans") == 0)
                return;
            Run(
                $"CREATE TEMP TABLE Earlier(v); WITH RECURSIVE c(v) AS (SELECT 1 UNION ALL SELECT v + 1 FROM c WHERE v < {versions}) INSERT INTO Earlier SELECT v FROM c;"
            );
            Copy("Plans", "v", "CROSS JOIN Earlier", "Number");
            Run($"UPDATE Plans SET Number = {versions} WHERE StudentId IN One;");
            var mine = Columns("Plans");
            string Older(string c) =>
                c == "Id" ? NewId
                : c == "Number" ? "v"
                : $"\"{c}\"";
            Run(
                $"INSERT INTO Plans ({Named(mine)}) SELECT {string.Join(", ", mine.Select(Older))} FROM Plans CROSS JOIN Earlier WHERE StudentId IN One AND v < {versions};"
            );
            Copy("Sessions", where: "AND StartedAt IS NULL");
            var all = Columns("Sessions");
            string Missed(string c) =>
                c == "Id" ? NewId
                : c == "Date" ? "date('now', '-1 days')"
                : $"\"{c}\"";
            Run(
                $"INSERT INTO Sessions ({Named(all)}) SELECT {string.Join(", ", all.Select(Missed))} FROM Sessions WHERE StartedAt IS NULL AND Half IS NOT NULL AND substr(StudentId, -1) = '0' GROUP BY StudentId;"
            );
        }

        string Named(IEnumerable<string> columns) => string.Join(", ", columns.Select(c => $"\"{c}\""));

        void Copy(string table, string? instead = null, string from = "", string? of = null, string where = "")
        {
            var columns = Columns(table).Where(c => table != "Answers" || c != "Id").ToList();
            var values = columns.Select(c =>
                table == "Students" && c == "Id" || c == "StudentId" ? Student
                : c == "Id" ? NewId
                : c == of ? instead!
                : $"\"{c}\""
            );
            var who = table == "Students" ? "Id" : "StudentId";
            Run(
                $"INSERT INTO {table} ({Named(columns)}) SELECT {string.Join(", ", values)} FROM {table} CROSS JOIN Many {from} WHERE {who} IN One {where};"
            );
        }

        List<string> Columns(string table)
        {
            using var command = db.CreateCommand();
            command.CommandText = $"SELECT name FROM pragma_table_info('{table}')";
            using var reader = command.ExecuteReader();
            var names = new List<string>();
            while (reader.Read())
                names.Add(reader.GetString(0));
            return names;
        }

        long Count(string table)
        {
            using var command = db.CreateCommand();
            command.CommandText = $"SELECT count(*) FROM {table}";
            return (long)command.ExecuteScalar()!;
        }

        void Run(string sql)
        {
            using var command = db.CreateCommand();
            command.CommandText = sql;
            command.CommandTimeout = 600;
            command.ExecuteNonQuery();
        }
    }
}
