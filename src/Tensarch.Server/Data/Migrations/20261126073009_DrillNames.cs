using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <summary>Drills that are called otherwise now, in everything that is stored. What is kept is derived anew.</summary>
    public partial class DrillNames : Migration
    {
        private static readonly (string Old, string New)[] Names =
        [
            ("ball-rolls", "back-rolls"),
            ("crow-shelf", "crow-perch"),
            ("wrist-flip-rotate", "wrist-turns"),
        ];

        /// <summary>Columns that hold a key alone.</summary>
        private static readonly (string Table, string Column)[] Keys = [("Sets", "Drill"), ("Signals", "Drill"), ("ExitChecks", "Drill")];

        /// <summary>Columns in which a key stands as a string of JSON, or begins one.</summary>
        private static readonly (string Table, string Column)[] Texts =
        [
            ("Sessions", "PlanJson"),
            ("Sessions", "Worked"),
            ("Decisions", "EvidenceJson"),
            ("Corrections", "InsteadJson"),
            ("OwnLadders", "Json"),
        ];

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            foreach (var (old, next) in Names)
                Rename(migrationBuilder, old, next);
            migrationBuilder.Sql("UPDATE Board SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;");
            migrationBuilder.Sql("UPDATE Roster SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            foreach (var (old, next) in Names)
                Rename(migrationBuilder, next, old);
        }

        private static void Rename(MigrationBuilder migrationBuilder, string from, string to)
        {
            foreach (var (table, column) in Keys)
                migrationBuilder.Sql($"UPDATE {table} SET {column} = '{to}' WHERE {column} = '{from}';");
            foreach (var (table, column) in Texts)
                migrationBuilder.Sql(
                    $"UPDATE {table} SET {column} = replace({column}, '\"{from}', '\"{to}') WHERE instr({column}, '\"{from}') > 0;"
                );
        }
    }
}
