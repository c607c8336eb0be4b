using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class WebCalendars : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "FromWeb",
                table: "Calendars",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "WebSources",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    ETag = table.Column<string>(type: "TEXT", nullable: true),
                    LastModified = table.Column<string>(type: "TEXT", nullable: true),
                    Digest = table.Column<string>(type: "TEXT", nullable: true),
                    AsOf = table.Column<long>(type: "INTEGER", nullable: true),
                    DueAt = table.Column<long>(type: "INTEGER", nullable: false),
                    TriedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    EveryMinutes = table.Column<int>(type: "INTEGER", nullable: false),
                    Failures = table.Column<int>(type: "INTEGER", nullable: false),
                    FailingSince = table.Column<long>(type: "INTEGER", nullable: true),
                    Problem = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WebSources", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "WebCalendars",
                columns: table => new
                {
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    SourceId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Applied = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WebCalendars", x => x.CalendarId);
                    table.ForeignKey(
                        name: "FK_WebCalendars_Calendars_CalendarId",
                        column: x => x.CalendarId,
                        principalTable: "Calendars",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_WebCalendars_WebSources_SourceId",
                        column: x => x.SourceId,
                        principalTable: "WebSources",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "WebFiles",
                columns: table => new
                {
                    SourceId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Packed = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WebFiles", x => x.SourceId);
                    table.ForeignKey(
                        name: "FK_WebFiles_WebSources_SourceId",
                        column: x => x.SourceId,
                        principalTable: "WebSources",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_WebCalendars_SourceId",
                table: "WebCalendars",
                column: "SourceId");

            migrationBuilder.CreateIndex(
                name: "IX_WebSources_DueAt",
                table: "WebSources",
                column: "DueAt");

            migrationBuilder.CreateIndex(
                name: "UX_WebSources_Address",
                table: "WebSources",
                column: "Address",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "WebCalendars");

            migrationBuilder.DropTable(
                name: "WebFiles");

            migrationBuilder.DropTable(
                name: "WebSources");

            migrationBuilder.DropColumn(
                name: "FromWeb",
                table: "Calendars");
        }
    }
}
