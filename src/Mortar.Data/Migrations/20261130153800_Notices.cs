using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Notices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "InboxSeenAt",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "TellEndsAfter",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "TellFrom",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "ToldAt",
                table: "People",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "QuietUntil",
                table: "Mails",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "ConcernedByEvents",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Sequence = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ConcernedByEvents", x => new { x.PersonId, x.Sequence });
                    table.ForeignKey(
                        name: "FK_ConcernedByEvents_Changes_Sequence",
                        column: x => x.Sequence,
                        principalTable: "Changes",
                        principalColumn: "Sequence",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "NoticeClock",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    UpTo = table.Column<long>(type: "INTEGER", nullable: false),
                    EndsUpTo = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_NoticeClock", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ConcernedByEvents_Sequence",
                table: "ConcernedByEvents",
                column: "Sequence");

            // Whoever is given an event now goes on being told what became of it, as before. Of those who were only named on
            // one, nothing was told so far, and nothing of it is dug up.
            migrationBuilder.Sql(
                """
                INSERT INTO ConcernedByEvents (PersonId, Sequence)
                SELECT Given.PersonId, Changes.Sequence FROM Given
                JOIN Changes ON Changes.SubjectId = Given.EventId AND Changes.Subject = 'Event'
                WHERE Changes.Actor <> Given.PersonId;
                UPDATE People SET InboxSeenAt = CAST(strftime('%s', 'now') AS INTEGER) * 1000;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ConcernedByEvents");

            migrationBuilder.DropTable(
                name: "NoticeClock");

            migrationBuilder.DropColumn(
                name: "InboxSeenAt",
                table: "People");

            migrationBuilder.DropColumn(
                name: "TellEndsAfter",
                table: "People");

            migrationBuilder.DropColumn(
                name: "TellFrom",
                table: "People");

            migrationBuilder.DropColumn(
                name: "ToldAt",
                table: "People");

            migrationBuilder.DropColumn(
                name: "QuietUntil",
                table: "Mails");
        }
    }
}
