using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class SessionsByHand : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "EditId",
                table: "Sessions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PlanBefore",
                table: "Sessions",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "EditId",
                table: "Sessions");

            migrationBuilder.DropColumn(
                name: "PlanBefore",
                table: "Sessions");
        }
    }
}
