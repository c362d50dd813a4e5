using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Tensarch.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Door : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "SignIns",
                columns: table => new
                {
                    KeyHash = table.Column<string>(type: "TEXT", nullable: false),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Ticket = table.Column<byte[]>(type: "BLOB", nullable: false),
                    ExpiresAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignIns", x => x.KeyHash);
                    table.ForeignKey(
                        name: "FK_SignIns_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_SignIns_UserId",
                table: "SignIns",
                column: "UserId");

            Repair(migrationBuilder);
        }

        private const string BadKey = "(LadderKey = '' OR LadderKey GLOB '*[^a-z0-9-]*' OR length(LadderKey) > 60)";

        /// <summary>
        /// What was let in before there was a door. A ladder whose key no path can name gets one made from the id of its first version; counts
        /// beside trials say nothing and go. Everything kept is derived anew.
        /// </summary>
        private static void Repair(MigrationBuilder migrationBuilder)
        {
            foreach (var table in new[] { "Skills", "OwnLadders" })
                migrationBuilder.Sql($"""
                    UPDATE {table}
                    SET LadderKey = coalesce(
                        (SELECT 'own-' || lower(replace(min(o.Id), '-', '')) FROM OwnLadders o
                         WHERE o.StudioId = {table}.StudioId AND coalesce(json_extract(o.Json, '$.key'), '') = {table}.LadderKey),
                        LadderKey)
                    WHERE {BadKey};
                    """);
            migrationBuilder.Sql("UPDATE OwnLadders SET Json = json_set(Json, '$.key', LadderKey) WHERE json_extract(Json, '$.key') <> LadderKey;");
            migrationBuilder.Sql("""
                UPDATE Readings SET Successes = NULL, Attempts = NULL, Hits = NULL
                WHERE Trials <> '[]' AND (Attempts IS NOT NULL OR Successes IS NOT NULL);
                """);
            migrationBuilder.Sql("UPDATE Board SET DueAt = 0, Stamp = Stamp + 1;");
            migrationBuilder.Sql("UPDATE Roster SET DueAt = 0, Stamp = Stamp + 1;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "SignIns");
        }
    }
}
