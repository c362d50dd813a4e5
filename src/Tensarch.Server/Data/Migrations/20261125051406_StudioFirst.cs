using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class StudioFirst : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Withdrawals_StudentId",
                table: "Withdrawals");

            migrationBuilder.DropIndex(
                name: "IX_Withdrawals_StudioId",
                table: "Withdrawals");

            migrationBuilder.DropIndex(
                name: "IX_Skills_StudioId",
                table: "Skills");

            migrationBuilder.DropIndex(
                name: "IX_Signals_StudentId_At",
                table: "Signals");

            migrationBuilder.DropIndex(
                name: "IX_Signals_StudioId",
                table: "Signals");

            migrationBuilder.DropIndex(
                name: "IX_Sets_StudentId_At",
                table: "Sets");

            migrationBuilder.DropIndex(
                name: "IX_Sets_StudioId",
                table: "Sets");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudentId_CreatedAt",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudentId_StartedAt",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudioId",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Screenings_StudentId_At",
                table: "Screenings");

            migrationBuilder.DropIndex(
                name: "IX_Screenings_StudioId",
                table: "Screenings");

            migrationBuilder.DropIndex(
                name: "IX_Reviews_StudentId",
                table: "Reviews");

            migrationBuilder.DropIndex(
                name: "IX_Reviews_StudioId",
                table: "Reviews");

            migrationBuilder.DropIndex(
                name: "IX_FormChecks_StudentId_Skill_At",
                table: "FormChecks");

            migrationBuilder.DropIndex(
                name: "IX_FormChecks_StudioId",
                table: "FormChecks");

            migrationBuilder.DropIndex(
                name: "IX_ExitChecks_StudentId_Skill_At",
                table: "ExitChecks");

            migrationBuilder.DropIndex(
                name: "IX_ExitChecks_StudioId",
                table: "ExitChecks");

            migrationBuilder.DropIndex(
                name: "IX_Decisions_StudentId_Skill_At",
                table: "Decisions");

            migrationBuilder.DropIndex(
                name: "IX_Decisions_StudioId",
                table: "Decisions");

            migrationBuilder.DropIndex(
                name: "IX_Clearances_StudentId",
                table: "Clearances");

            migrationBuilder.DropIndex(
                name: "IX_Clearances_StudioId",
                table: "Clearances");

            migrationBuilder.DropIndex(
                name: "IX_Bodies_StudentId_Id",
                table: "Bodies");

            migrationBuilder.DropIndex(
                name: "IX_Bodies_StudioId",
                table: "Bodies");

            migrationBuilder.DropIndex(
                name: "IX_Answers_StudentId_Id",
                table: "Answers");

            migrationBuilder.DropIndex(
                name: "IX_Answers_StudioId",
                table: "Answers");

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_StudioId_StudentId",
                table: "Withdrawals",
                columns: new[] { "StudioId", "StudentId" });

            migrationBuilder.CreateIndex(
                name: "IX_Skills_StudioId_StudentId",
                table: "Skills",
                columns: new[] { "StudioId", "StudentId" });

            migrationBuilder.CreateIndex(
                name: "IX_Signals_StudioId_StudentId_At",
                table: "Signals",
                columns: new[] { "StudioId", "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Sets_StudioId_StudentId_At",
                table: "Sets",
                columns: new[] { "StudioId", "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudioId_StudentId_CreatedAt",
                table: "Sessions",
                columns: new[] { "StudioId", "StudentId", "CreatedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudioId_StudentId_StartedAt",
                table: "Sessions",
                columns: new[] { "StudioId", "StudentId", "StartedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Screenings_StudioId_StudentId_At",
                table: "Screenings",
                columns: new[] { "StudioId", "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Reviews_StudioId_StudentId",
                table: "Reviews",
                columns: new[] { "StudioId", "StudentId" });

            migrationBuilder.CreateIndex(
                name: "IX_FormChecks_StudioId_StudentId_At",
                table: "FormChecks",
                columns: new[] { "StudioId", "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_ExitChecks_StudioId_StudentId_At",
                table: "ExitChecks",
                columns: new[] { "StudioId", "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Decisions_StudioId_StudentId_At_Id",
                table: "Decisions",
                columns: new[] { "StudioId", "StudentId", "At", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Clearances_StudioId_StudentId",
                table: "Clearances",
                columns: new[] { "StudioId", "StudentId" });

            migrationBuilder.CreateIndex(
                name: "IX_Bodies_StudioId_StudentId_Id",
                table: "Bodies",
                columns: new[] { "StudioId", "StudentId", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Board_StudioId_StudentId",
                table: "Board",
                columns: new[] { "StudioId", "StudentId" });

            migrationBuilder.CreateIndex(
                name: "IX_Answers_StudioId_StudentId_Id",
                table: "Answers",
                columns: new[] { "StudioId", "StudentId", "Id" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Withdrawals_StudioId_StudentId",
                table: "Withdrawals");

            migrationBuilder.DropIndex(
                name: "IX_Skills_StudioId_StudentId",
                table: "Skills");

            migrationBuilder.DropIndex(
                name: "IX_Signals_StudioId_StudentId_At",
                table: "Signals");

            migrationBuilder.DropIndex(
                name: "IX_Sets_StudioId_StudentId_At",
                table: "Sets");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudioId_StudentId_CreatedAt",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudioId_StudentId_StartedAt",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Screenings_StudioId_StudentId_At",
                table: "Screenings");

            migrationBuilder.DropIndex(
                name: "IX_Reviews_StudioId_StudentId",
                table: "Reviews");

            migrationBuilder.DropIndex(
                name: "IX_FormChecks_StudioId_StudentId_At",
                table: "FormChecks");

            migrationBuilder.DropIndex(
                name: "IX_ExitChecks_StudioId_StudentId_At",
                table: "ExitChecks");

            migrationBuilder.DropIndex(
                name: "IX_Decisions_StudioId_StudentId_At_Id",
                table: "Decisions");

            migrationBuilder.DropIndex(
                name: "IX_Clearances_StudioId_StudentId",
                table: "Clearances");

            migrationBuilder.DropIndex(
                name: "IX_Bodies_StudioId_StudentId_Id",
                table: "Bodies");

            migrationBuilder.DropIndex(
                name: "IX_Board_StudioId_StudentId",
                table: "Board");

            migrationBuilder.DropIndex(
                name: "IX_Answers_StudioId_StudentId_Id",
                table: "Answers");

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_StudentId",
                table: "Withdrawals",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_StudioId",
                table: "Withdrawals",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Skills_StudioId",
                table: "Skills",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Signals_StudentId_At",
                table: "Signals",
                columns: new[] { "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Signals_StudioId",
                table: "Signals",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Sets_StudentId_At",
                table: "Sets",
                columns: new[] { "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Sets_StudioId",
                table: "Sets",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudentId_CreatedAt",
                table: "Sessions",
                columns: new[] { "StudentId", "CreatedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudentId_StartedAt",
                table: "Sessions",
                columns: new[] { "StudentId", "StartedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudioId",
                table: "Sessions",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Screenings_StudentId_At",
                table: "Screenings",
                columns: new[] { "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Screenings_StudioId",
                table: "Screenings",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Reviews_StudentId",
                table: "Reviews",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_Reviews_StudioId",
                table: "Reviews",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_FormChecks_StudentId_Skill_At",
                table: "FormChecks",
                columns: new[] { "StudentId", "Skill", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_FormChecks_StudioId",
                table: "FormChecks",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_ExitChecks_StudentId_Skill_At",
                table: "ExitChecks",
                columns: new[] { "StudentId", "Skill", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_ExitChecks_StudioId",
                table: "ExitChecks",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Decisions_StudentId_Skill_At",
                table: "Decisions",
                columns: new[] { "StudentId", "Skill", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Decisions_StudioId",
                table: "Decisions",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Clearances_StudentId",
                table: "Clearances",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_Clearances_StudioId",
                table: "Clearances",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Bodies_StudentId_Id",
                table: "Bodies",
                columns: new[] { "StudentId", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Bodies_StudioId",
                table: "Bodies",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Answers_StudentId_Id",
                table: "Answers",
                columns: new[] { "StudentId", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Answers_StudioId",
                table: "Answers",
                column: "StudioId");
        }
    }
}
