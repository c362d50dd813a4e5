using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Measuring : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Readings_StudentId_Measure_Side_TakenAt",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudentId_TakenAt",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId",
                table: "Readings");

            migrationBuilder.AddColumn<string>(
                name: "BlocksJson",
                table: "Studios",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "BlocksVersion",
                table: "Studios",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<double>(
                name: "HipWidthCm",
                table: "Students",
                type: "REAL",
                nullable: false,
                defaultValue: 17.0);

            migrationBuilder.AddColumn<int>(
                name: "Attempts",
                table: "Readings",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Confirmed",
                table: "Readings",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Hits",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Marks",
                table: "Readings",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<int>(
                name: "SemDof",
                table: "Readings",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<Guid>(
                name: "SittingId",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "StacksJson",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Successes",
                table: "Readings",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "TauPairs",
                table: "Readings",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "OwnMeasures",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Measure = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnMeasures", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OwnMeasures_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Pictures",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    View = table.Column<string>(type: "TEXT", nullable: false),
                    Width = table.Column<int>(type: "INTEGER", nullable: false),
                    Height = table.Column<int>(type: "INTEGER", nullable: false),
                    TakenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pictures", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Pictures_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Sittings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    ItemsJson = table.Column<string>(type: "TEXT", nullable: false),
                    StartedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sittings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Sittings_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Marks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PictureId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PlacementJson = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<double>(type: "REAL", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    BodyHash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Marks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Marks_Pictures_PictureId",
                        column: x => x.PictureId,
                        principalTable: "Pictures",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Marks_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Drafts",
                columns: table => new
                {
                    SittingId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Slot = table.Column<string>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Drafts", x => new { x.SittingId, x.Slot });
                    table.ForeignKey(
                        name: "FK_Drafts_Sittings_SittingId",
                        column: x => x.SittingId,
                        principalTable: "Sittings",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Drafts_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_SittingId",
                table: "Readings",
                column: "SittingId");

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId_Measure_TakenAt_Id",
                table: "Readings",
                columns: new[] { "StudioId", "Measure", "TakenAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId_StudentId_Measure_Side_TakenAt_Id",
                table: "Readings",
                columns: new[] { "StudioId", "StudentId", "Measure", "Side", "TakenAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId_StudentId_TakenAt_Id",
                table: "Readings",
                columns: new[] { "StudioId", "StudentId", "TakenAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId_TakenAt_Id",
                table: "Readings",
                columns: new[] { "StudioId", "TakenAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId_TakenBy_Measure_Instrument_TakenAt",
                table: "Readings",
                columns: new[] { "StudioId", "TakenBy", "Measure", "Instrument", "TakenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Drafts_StudioId",
                table: "Drafts",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Marks_PictureId_At",
                table: "Marks",
                columns: new[] { "PictureId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Marks_StudioId",
                table: "Marks",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_OwnMeasures_StudioId_Measure_Version",
                table: "OwnMeasures",
                columns: new[] { "StudioId", "Measure", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_StudentId_TakenAt_Id",
                table: "Pictures",
                columns: new[] { "StudentId", "TakenAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Pictures_StudioId",
                table: "Pictures",
                column: "StudioId");

            migrationBuilder.CreateIndex(
                name: "IX_Sittings_StudentId_EndedAt_StartedAt",
                table: "Sittings",
                columns: new[] { "StudentId", "EndedAt", "StartedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Sittings_StudioId",
                table: "Sittings",
                column: "StudioId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Drafts");

            migrationBuilder.DropTable(
                name: "Marks");

            migrationBuilder.DropTable(
                name: "OwnMeasures");

            migrationBuilder.DropTable(
                name: "Sittings");

            migrationBuilder.DropTable(
                name: "Pictures");

            migrationBuilder.DropIndex(
                name: "IX_Readings_SittingId",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId_Measure_TakenAt_Id",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId_StudentId_Measure_Side_TakenAt_Id",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId_StudentId_TakenAt_Id",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId_TakenAt_Id",
                table: "Readings");

            migrationBuilder.DropIndex(
                name: "IX_Readings_StudioId_TakenBy_Measure_Instrument_TakenAt",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "BlocksJson",
                table: "Studios");

            migrationBuilder.DropColumn(
                name: "BlocksVersion",
                table: "Studios");

            migrationBuilder.DropColumn(
                name: "HipWidthCm",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "Attempts",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "Confirmed",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "Hits",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "Marks",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "SemDof",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "SittingId",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "StacksJson",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "Successes",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "TauPairs",
                table: "Readings");

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudentId_Measure_Side_TakenAt",
                table: "Readings",
                columns: new[] { "StudentId", "Measure", "Side", "TakenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudentId_TakenAt",
                table: "Readings",
                columns: new[] { "StudentId", "TakenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Readings_StudioId",
                table: "Readings",
                column: "StudioId");
        }
    }
}
