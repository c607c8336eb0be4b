using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Devices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Devices",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Owner = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Role = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    SeenAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Program = table.Column<string>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Devices", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Devices_People_Owner",
                        column: x => x.Owner,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "LeftCalendars",
                columns: table => new
                {
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Sequence = table.Column<long>(type: "INTEGER", nullable: false),
                    EventId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LeftCalendars", x => new { x.CalendarId, x.Sequence });
                    table.ForeignKey(
                        name: "FK_LeftCalendars_Changes_Sequence",
                        column: x => x.Sequence,
                        principalTable: "Changes",
                        principalColumn: "Sequence",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ObjectNames",
                columns: table => new
                {
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    EventId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ObjectNames", x => new { x.CalendarId, x.Name });
                    table.ForeignKey(
                        name: "FK_ObjectNames_Calendars_CalendarId",
                        column: x => x.CalendarId,
                        principalTable: "Calendars",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ObjectNames_Events_EventId",
                        column: x => x.EventId,
                        principalTable: "Events",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OwnAlarms",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EventId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: true),
                    Stamp = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnAlarms", x => new { x.PersonId, x.EventId });
                    table.ForeignKey(
                        name: "FK_OwnAlarms_Events_EventId",
                        column: x => x.EventId,
                        principalTable: "Events",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_OwnAlarms_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OwnProperties",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Xml = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnProperties", x => new { x.PersonId, x.CalendarId, x.Name });
                    table.ForeignKey(
                        name: "FK_OwnProperties_Calendars_CalendarId",
                        column: x => x.CalendarId,
                        principalTable: "Calendars",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_OwnProperties_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Devices_Owner",
                table: "Devices",
                column: "Owner");

            migrationBuilder.CreateIndex(
                name: "UX_Devices_Hash",
                table: "Devices",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LeftCalendars_Sequence",
                table: "LeftCalendars",
                column: "Sequence");

            migrationBuilder.CreateIndex(
                name: "IX_ObjectNames_EventId",
                table: "ObjectNames",
                column: "EventId");

            migrationBuilder.CreateIndex(
                name: "IX_OwnAlarms_EventId",
                table: "OwnAlarms",
                column: "EventId");

            migrationBuilder.CreateIndex(
                name: "IX_OwnAlarms_Stamp",
                table: "OwnAlarms",
                column: "Stamp");

            migrationBuilder.CreateIndex(
                name: "IX_OwnProperties_CalendarId",
                table: "OwnProperties",
                column: "CalendarId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Devices");

            migrationBuilder.DropTable(
                name: "LeftCalendars");

            migrationBuilder.DropTable(
                name: "ObjectNames");

            migrationBuilder.DropTable(
                name: "OwnAlarms");

            migrationBuilder.DropTable(
                name: "OwnProperties");
        }
    }
}
