using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class SignalsByDay : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Signals_StudioId_At",
                table: "Signals",
                columns: new[] { "StudioId", "At" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Signals_StudioId_At",
                table: "Signals");
        }
    }
}
