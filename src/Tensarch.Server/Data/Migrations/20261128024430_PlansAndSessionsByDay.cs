using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class PlansAndSessionsByDay : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudioId_StudentId_Date",
                table: "Sessions",
                columns: new[] { "StudioId", "StudentId", "Date" });

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_StudioId_StudentId_StartedOn",
                table: "Sessions",
                columns: new[] { "StudioId", "StudentId", "StartedOn" });

            migrationBuilder.CreateIndex(
                name: "IX_Plans_StudioId_StudentId_At",
                table: "Plans",
                columns: new[] { "StudioId", "StudentId", "At" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudioId_StudentId_Date",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_StudioId_StudentId_StartedOn",
                table: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Plans_StudioId_StudentId_At",
                table: "Plans");
        }
    }
}
