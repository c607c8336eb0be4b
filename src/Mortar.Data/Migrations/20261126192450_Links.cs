using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Links : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // What the log keeps of the secrets in links goes; those in the invitations become hashes as soon as the store
            // is opened (OldLinks). No table is built anew here, so that a stop leaves all of this or nothing.
            migrationBuilder.Sql(
                """
                UPDATE Changes
                SET "Before" = json_remove("Before", '$.LinkToken'), "After" = json_remove("After", '$.LinkToken')
                WHERE Subject = 'Invitation'
                """);

            migrationBuilder.DropIndex(
                name: "UX_Invitations_LinkToken",
                table: "Invitations");

            migrationBuilder.RenameColumn(
                name: "LinkToken",
                table: "Invitations",
                newName: "LinkHash");

            migrationBuilder.AddColumn<long>(
                name: "EndsAt",
                table: "Invitations",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "InReturn",
                table: "Invitations",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "DayBegins",
                table: "Groups",
                type: "INTEGER",
                nullable: false,
                defaultValue: 480);

            migrationBuilder.AddColumn<int>(
                name: "DayEnds",
                table: "Groups",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1140);

            migrationBuilder.AddColumn<bool>(
                name: "OneAtATime",
                table: "Calendars",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "Addresses",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: true),
                    AskedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    ConfirmedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Addresses", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Addresses_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Guardians",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    GroupId = table.Column<Guid>(type: "TEXT", nullable: false),
                    WardId = table.Column<Guid>(type: "TEXT", nullable: false),
                    GuardianId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Guardians", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Guardians_Groups_GroupId",
                        column: x => x.GroupId,
                        principalTable: "Groups",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Guardians_People_GuardianId",
                        column: x => x.GuardianId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Guardians_People_WardId",
                        column: x => x.WardId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Links",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EventId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Role = table.Column<string>(type: "TEXT", nullable: false),
                    MostUses = table.Column<int>(type: "INTEGER", nullable: true),
                    EndsAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Uses = table.Column<int>(type: "INTEGER", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    MadeBy = table.Column<Guid>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Links", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Links_Calendars_CalendarId",
                        column: x => x.CalendarId,
                        principalTable: "Calendars",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Links_Events_EventId",
                        column: x => x.EventId,
                        principalTable: "Events",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Links_People_MadeBy",
                        column: x => x.MadeBy,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "LinkHolders",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkId = table.Column<Guid>(type: "TEXT", nullable: false),
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LeftAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LinkHolders", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LinkHolders_Links_LinkId",
                        column: x => x.LinkId,
                        principalTable: "Links",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_LinkHolders_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "UX_Invitations_LinkHash",
                table: "Invitations",
                column: "LinkHash",
                unique: true,
                filter: "LinkHash <> ''");

            migrationBuilder.CreateIndex(
                name: "UX_Addresses_Confirmed",
                table: "Addresses",
                column: "Address",
                unique: true,
                filter: "ConfirmedAt IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "UX_Addresses_Hash",
                table: "Addresses",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "UX_Addresses_PersonAddress",
                table: "Addresses",
                columns: new[] { "PersonId", "Address" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Guardians_GuardianId",
                table: "Guardians",
                column: "GuardianId");

            migrationBuilder.CreateIndex(
                name: "IX_Guardians_WardId",
                table: "Guardians",
                column: "WardId");

            migrationBuilder.CreateIndex(
                name: "UX_Guardians_WardGuardian",
                table: "Guardians",
                columns: new[] { "GroupId", "WardId", "GuardianId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LinkHolders_CalendarId",
                table: "LinkHolders",
                column: "CalendarId");

            migrationBuilder.CreateIndex(
                name: "IX_LinkHolders_PersonId",
                table: "LinkHolders",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "UX_LinkHolders_LinkPerson",
                table: "LinkHolders",
                columns: new[] { "LinkId", "PersonId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Links_CalendarId",
                table: "Links",
                column: "CalendarId");

            migrationBuilder.CreateIndex(
                name: "IX_Links_EventId",
                table: "Links",
                column: "EventId");

            migrationBuilder.CreateIndex(
                name: "IX_Links_MadeBy",
                table: "Links",
                column: "MadeBy");

            migrationBuilder.CreateIndex(
                name: "UX_Links_Hash",
                table: "Links",
                column: "Hash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Addresses");

            migrationBuilder.DropTable(
                name: "Guardians");

            migrationBuilder.DropTable(
                name: "LinkHolders");

            migrationBuilder.DropTable(
                name: "Links");

            migrationBuilder.DropIndex(
                name: "UX_Invitations_LinkHash",
                table: "Invitations");

            migrationBuilder.DropColumn(
                name: "EndsAt",
                table: "Invitations");

            migrationBuilder.DropColumn(
                name: "InReturn",
                table: "Invitations");

            migrationBuilder.DropColumn(
                name: "DayBegins",
                table: "Groups");

            migrationBuilder.DropColumn(
                name: "DayEnds",
                table: "Groups");

            migrationBuilder.DropColumn(
                name: "OneAtATime",
                table: "Calendars");

            migrationBuilder.RenameColumn(
                name: "LinkHash",
                table: "Invitations",
                newName: "LinkToken");

            migrationBuilder.CreateIndex(
                name: "UX_Invitations_LinkToken",
                table: "Invitations",
                column: "LinkToken",
                unique: true);
        }
    }
}
