using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Reminders : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "DigestedAt",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "DigestedUpTo",
                table: "People",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<int>(
                name: "Reminder",
                table: "Layers",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "LongestReminder",
                table: "Events",
                type: "INTEGER",
                nullable: true);

            // Single dates with a reminder of their own are found again once their event is next changed.
            migrationBuilder.Sql("UPDATE Events SET LongestReminder = Reminder WHERE Reminder IS NOT NULL");

            migrationBuilder.CreateTable(
                name: "ReminderClock",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    LookedUpTo = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReminderClock", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Reminders",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EventId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Start = table.Column<long>(type: "INTEGER", nullable: false),
                    Only = table.Column<string>(type: "TEXT", nullable: false),
                    GivenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    SeenAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Reminders", x => new { x.PersonId, x.EventId, x.Start });
                    table.ForeignKey(
                        name: "FK_Reminders_Events_EventId",
                        column: x => x.EventId,
                        principalTable: "Events",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Reminders_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Events_Reminders",
                table: "Events",
                column: "IndexEnd",
                filter: "LongestReminder IS NOT NULL AND DeletedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Reminders_EventId",
                table: "Reminders",
                column: "EventId");

            migrationBuilder.CreateIndex(
                name: "IX_Reminders_Shown",
                table: "Reminders",
                columns: new[] { "PersonId", "GivenAt" },
                filter: "SeenAt IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ReminderClock");

            migrationBuilder.DropTable(
                name: "Reminders");

            migrationBuilder.DropIndex(
                name: "IX_Events_Reminders",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "DigestedAt",
                table: "People");

            migrationBuilder.DropColumn(
                name: "DigestedUpTo",
                table: "People");

            migrationBuilder.DropColumn(
                name: "Reminder",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "LongestReminder",
                table: "Events");
        }
    }
}
