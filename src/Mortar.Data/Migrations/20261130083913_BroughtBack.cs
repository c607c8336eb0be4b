using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class BroughtBack : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "WithdrawnAt",
                table: "Proposals",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "DeletedIn",
                table: "Events",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "Undoes",
                table: "Changes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Events_Bin",
                table: "Events",
                columns: new[] { "CalendarId", "DeletedAt" },
                filter: "DeletedAt IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_Actor_Sequence",
                table: "Changes",
                columns: new[] { "Actor", "Sequence" });

            migrationBuilder.CreateIndex(
                name: "IX_Changes_Undoes",
                table: "Changes",
                column: "Undoes",
                filter: "Undoes IS NOT NULL");

            // What is in the bin already was put there by its last change.
            migrationBuilder.Sql("""
                UPDATE Events SET DeletedIn = (
                    SELECT "Set" FROM Changes WHERE SubjectId = Events.Id ORDER BY Sequence DESC LIMIT 1
                ) WHERE DeletedAt IS NOT NULL
                """);
            migrationBuilder.Sql("""
                UPDATE Proposals SET WithdrawnAt = (
                    SELECT "At" FROM Changes WHERE SubjectId = Proposals.Id ORDER BY Sequence DESC LIMIT 1
                ) WHERE State = 'Withdrawn'
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Events_Bin",
                table: "Events");

            migrationBuilder.DropIndex(
                name: "IX_Changes_Actor_Sequence",
                table: "Changes");

            migrationBuilder.DropIndex(
                name: "IX_Changes_Undoes",
                table: "Changes");

            migrationBuilder.DropColumn(
                name: "WithdrawnAt",
                table: "Proposals");

            migrationBuilder.DropColumn(
                name: "DeletedIn",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Undoes",
                table: "Changes");
        }
    }
}
