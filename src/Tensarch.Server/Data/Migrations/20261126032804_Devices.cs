using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Devices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "Doubled",
                table: "Sets",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "DeletedAt",
                table: "Sessions",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Drill",
                table: "ExitChecks",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Variant",
                table: "ExitChecks",
                type: "TEXT",
                nullable: true);

            // What was watched until now was the one way out that the skill's shipped ladder teaches.
            migrationBuilder.Sql(
                """
                UPDATE ExitChecks SET
                    Drill = CASE Skill WHEN 'crow' THEN 'crow-step-back' WHEN 'handstand' THEN 'exit-wheel' ELSE 'roll-out' END,
                    Variant = CASE WHEN Skill = 'shoulderstand' AND Stage >= 6 THEN 'straight' END
                """);

            migrationBuilder.AddColumn<Guid>(
                name: "Device",
                table: "Events",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Doubled",
                table: "Events",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Doubled",
                table: "Sets");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Sessions");

            migrationBuilder.DropColumn(
                name: "Drill",
                table: "ExitChecks");

            migrationBuilder.DropColumn(
                name: "Variant",
                table: "ExitChecks");

            migrationBuilder.DropColumn(
                name: "Device",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Doubled",
                table: "Events");
        }
    }
}
