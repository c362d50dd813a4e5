using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Ladders : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "Ladder",
                table: "Skills",
                newName: "Skill");

            migrationBuilder.RenameIndex(
                name: "IX_Skills_StudentId_Ladder",
                table: "Skills",
                newName: "IX_Skills_StudentId_Skill");

            migrationBuilder.RenameColumn(
                name: "Ladder",
                table: "Sessions",
                newName: "Skill");

            migrationBuilder.RenameColumn(
                name: "Ladder",
                table: "FormChecks",
                newName: "Skill");

            migrationBuilder.RenameIndex(
                name: "IX_FormChecks_StudentId_Ladder_At",
                table: "FormChecks",
                newName: "IX_FormChecks_StudentId_Skill_At");

            migrationBuilder.RenameColumn(
                name: "Ladder",
                table: "Decisions",
                newName: "Skill");

            migrationBuilder.RenameIndex(
                name: "IX_Decisions_StudentId_Ladder_At",
                table: "Decisions",
                newName: "IX_Decisions_StudentId_Skill_At");

            migrationBuilder.AddColumn<DateOnly>(
                name: "ConsentOn",
                table: "Students",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DaysJson",
                table: "Students",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Equipment",
                table: "Students",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "GoalsJson",
                table: "Students",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LadderKey",
                table: "Skills",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Worked",
                table: "Sessions",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "TrialsAt",
                table: "Readings",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "Board",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Side = table.Column<string>(type: "TEXT", nullable: true),
                    Group = table.Column<string>(type: "TEXT", nullable: false),
                    Rank = table.Column<double>(type: "REAL", nullable: false),
                    LineJson = table.Column<string>(type: "TEXT", nullable: false),
                    DueAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Stamp = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Board", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Board_Students_StudentId",
                        column: x => x.StudentId,
                        principalTable: "Students",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Board_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Bodies",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    BodyJson = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Bodies", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Bodies_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ExitChecks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Stage = table.Column<int>(type: "INTEGER", nullable: false),
                    Side = table.Column<string>(type: "TEXT", nullable: true),
                    Safe = table.Column<int>(type: "INTEGER", nullable: false),
                    Of = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ExitChecks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ExitChecks_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OwnLadders",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LadderKey = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnLadders", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OwnLadders_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Screenings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: true),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Screenings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Screenings_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Withdrawals",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClearanceId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Withdrawals", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Withdrawals_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Board_StudentId",
                table: "Board",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_Board_StudioId_DueAt",
                table: "Board",
                columns: new[] { "StudioId", "DueAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Board_StudioId_Group_Rank_Id",
                table: "Board",
                columns: new[] { "StudioId", "Group", "Rank", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Board_StudioId_Skill_Group_Rank_Id",
                table: "Board",
                columns: new[] { "StudioId", "Skill", "Group", "Rank", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Bodies_StudentId_Id",
                table: "Bodies",
                columns: new[] { "StudentId", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Bodies_StudioId",
                table: "Bodies",
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
                name: "IX_OwnLadders_StudioId_LadderKey_Version",
                table: "OwnLadders",
                columns: new[] { "StudioId", "LadderKey", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Screenings_StudentId_At",
                table: "Screenings",
                columns: new[] { "StudentId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Screenings_StudioId",
                table: "Screenings",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_ClearanceId",
                table: "Withdrawals",
                column: "ClearanceId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_StudentId",
                table: "Withdrawals",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_Withdrawals_StudioId",
                table: "Withdrawals",
                column: "StudioId");

            // Whoever is on a ladder follows the shipped one; a place on the board for each of their sides, to be derived when it is looked at.
            migrationBuilder.Sql("UPDATE Skills SET LadderKey = Skill;");
            migrationBuilder.Sql(
                """
                INSERT INTO Board (Id, StudioId, StudentId, Skill, Side, "Group", Rank, LineJson, DueAt, Stamp)
                SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
                    k.StudioId, k.StudentId, k.Skill, side.name, 'Training', 0, '', 621355968000000000, 0
                FROM Skills k CROSS JOIN (SELECT 'Left' AS name UNION ALL SELECT 'Right') side;
                """
            );
            // A screen that was answered before screens were dated was gone through when its last answer was given.
            migrationBuilder.Sql(
                """
                INSERT INTO Screenings (Id, StudioId, StudentId, Kind, "On", At, "By", BodyHash)
                SELECT upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-A' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
                    a.StudioId, a.StudentId, 'Whole', date((max(a.At) - 621355968000000000) / 10000000, 'unixepoch'), max(a.At), a."By", ''
                FROM Answers a GROUP BY a.StudentId;
                """
            );
            // What was worked in each session, drawn from its rounds.
            migrationBuilder.Sql(
                """
                UPDATE Sessions SET Worked = (
                    SELECT json_group_array(w) FROM (
                        SELECT DISTINCT Drill || '/' || Variant || '/' || coalesce(Side, '') AS w FROM Sets WHERE SessionId = Sessions.Id ORDER BY 1
                    )
                );
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Board");

            migrationBuilder.DropTable(
                name: "Bodies");

            migrationBuilder.DropTable(
                name: "ExitChecks");

            migrationBuilder.DropTable(
                name: "OwnLadders");

            migrationBuilder.DropTable(
                name: "Screenings");

            migrationBuilder.DropTable(
                name: "Withdrawals");

            migrationBuilder.DropColumn(
                name: "ConsentOn",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "DaysJson",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "Equipment",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "GoalsJson",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "LadderKey",
                table: "Skills");

            migrationBuilder.DropColumn(
                name: "Worked",
                table: "Sessions");

            migrationBuilder.DropColumn(
                name: "TrialsAt",
                table: "Readings");

            migrationBuilder.RenameColumn(
                name: "Skill",
                table: "Skills",
                newName: "Ladder");

            migrationBuilder.RenameIndex(
                name: "IX_Skills_StudentId_Skill",
                table: "Skills",
                newName: "IX_Skills_StudentId_Ladder");

            migrationBuilder.RenameColumn(
                name: "Skill",
                table: "Sessions",
                newName: "Ladder");

            migrationBuilder.RenameColumn(
                name: "Skill",
                table: "FormChecks",
                newName: "Ladder");

            migrationBuilder.RenameIndex(
                name: "IX_FormChecks_StudentId_Skill_At",
                table: "FormChecks",
                newName: "IX_FormChecks_StudentId_Ladder_At");

            migrationBuilder.RenameColumn(
                name: "Skill",
                table: "Decisions",
                newName: "Ladder");

            migrationBuilder.RenameIndex(
                name: "IX_Decisions_StudentId_Skill_At",
                table: "Decisions",
                newName: "IX_Decisions_StudentId_Ladder_At");
        }
    }
}
