using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class DeviceNames : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "Renamed",
                table: "People",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            // By hand, in one transaction: SQLite changes no key of a table that is there, and its being made anew by the tools is
            // not undone by a stop in the middle.
            migrationBuilder.Sql(
                """
                CREATE TABLE "ObjectNamesAnew" (
                    "CalendarId" TEXT NOT NULL,
                    "Name" TEXT NOT NULL,
                    "EventId" TEXT NOT NULL,
                    CONSTRAINT "PK_ObjectNames" PRIMARY KEY ("CalendarId", "Name", "EventId"),
                    CONSTRAINT "FK_ObjectNames_Calendars_CalendarId" FOREIGN KEY ("CalendarId") REFERENCES "Calendars" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_ObjectNames_Events_EventId" FOREIGN KEY ("EventId") REFERENCES "Events" ("Id") ON DELETE CASCADE
                );
                INSERT INTO "ObjectNamesAnew" ("CalendarId", "Name", "EventId") SELECT "CalendarId", "Name", "EventId" FROM "ObjectNames";
                DROP TABLE "ObjectNames";
                ALTER TABLE "ObjectNamesAnew" RENAME TO "ObjectNames";
                CREATE INDEX "IX_ObjectNames_EventId" ON "ObjectNames" ("EventId");
                """
            );

            migrationBuilder.CreateIndex(
                name: "IX_People_Renamed",
                table: "People",
                column: "Renamed");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                CREATE TABLE "ObjectNamesAnew" (
                    "CalendarId" TEXT NOT NULL,
                    "Name" TEXT NOT NULL,
                    "EventId" TEXT NOT NULL,
                    CONSTRAINT "PK_ObjectNames" PRIMARY KEY ("CalendarId", "Name"),
                    CONSTRAINT "FK_ObjectNames_Calendars_CalendarId" FOREIGN KEY ("CalendarId") REFERENCES "Calendars" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_ObjectNames_Events_EventId" FOREIGN KEY ("EventId") REFERENCES "Events" ("Id") ON DELETE CASCADE
                );
                INSERT OR IGNORE INTO "ObjectNamesAnew" ("CalendarId", "Name", "EventId") SELECT "CalendarId", "Name", "EventId" FROM "ObjectNames";
                DROP TABLE "ObjectNames";
                ALTER TABLE "ObjectNamesAnew" RENAME TO "ObjectNames";
                CREATE INDEX "IX_ObjectNames_EventId" ON "ObjectNames" ("EventId");
                """
            );

            migrationBuilder.DropIndex(name: "IX_People_Renamed", table: "People");

            migrationBuilder.DropColumn(name: "Renamed", table: "People");
        }
    }
}
