using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Roster : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Roster",
                columns: table => new
                {
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudioId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LineJson = table.Column<string>(type: "TEXT", nullable: false),
                    DueAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Stamp = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Roster", x => x.StudentId);
                    table.ForeignKey(
                        name: "FK_Roster_Students_StudentId",
                        column: x => x.StudentId,
                        principalTable: "Students",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Roster_Studios_StudioId",
                        column: x => x.StudioId,
                        principalTable: "Studios",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Decisions_StudioId_Skill_At",
                table: "Decisions",
                columns: new[] { "StudioId", "Skill", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Roster_StudioId_DueAt",
                table: "Roster",
                columns: new[] { "StudioId", "DueAt" });

            migrationBuilder.Sql("INSERT INTO Roster (StudentId, StudioId, LineJson, DueAt, Stamp) SELECT Id, StudioId, '', 0, 0 FROM Students;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Roster");

            migrationBuilder.DropIndex(
                name: "IX_Decisions_StudioId_Skill_At",
                table: "Decisions");
        }
    }
}
