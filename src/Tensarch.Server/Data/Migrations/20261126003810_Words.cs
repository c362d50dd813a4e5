using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <summary>A restriction is a bar, in what is stored too. What is kept is derived anew.</summary>
    public partial class Words : Migration
    {
        private static readonly (string Table, string Column, (string Old, string New)[] Words)[] Stored =
        [
            (
                "Decisions",
                "EvidenceJson",
                [("\"heldTags\":", "\"offLimits\":"), ("\"tagHeld\"", "\"tagOffLimits\""), ("\"resolveHold\"", "\"liftBar\"")]
            ),
            ("Sessions", "PlanJson", [("\"code\":\"heldTag\"", "\"code\":\"offLimits\""), ("\"code\":\"limitedTag\"", "\"code\":\"lightOnly\"")]),
        ];

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            foreach (var (table, column, words) in Stored)
            foreach (var (old, next) in words)
                Replace(migrationBuilder, table, column, old, next);
            migrationBuilder.Sql("UPDATE Board SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;");
            migrationBuilder.Sql("UPDATE Roster SET DueAt = 0, LineJson = '', Stamp = Stamp + 1;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            foreach (var (table, column, words) in Stored)
            foreach (var (old, next) in words)
                Replace(migrationBuilder, table, column, next, old);
        }

        private static void Replace(MigrationBuilder migrationBuilder, string table, string column, string from, string to) =>
            migrationBuilder.Sql($"UPDATE {table} SET {column} = replace({column}, '{from}', '{to}') WHERE instr({column}, '{from}') > 0;");
    }
}
