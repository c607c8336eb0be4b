using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class GivenTo : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "Guests",
                table: "Events",
                newName: "GivenTo");
            RenameInLog(migrationBuilder, "Guests", "GivenTo");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "GivenTo",
                table: "Events",
                newName: "Guests");
            RenameInLog(migrationBuilder, "GivenTo", "Guests");
        }

        /// <summary>What the log keeps of an event has the new name as well, so that it can be undone.</summary>
        private static void RenameInLog(MigrationBuilder migrationBuilder, string was, string now)
        {
            foreach (var state in new[] { "Before", "After" })
            {
                migrationBuilder.Sql(
                    $"""
                    UPDATE "Changes"
                    SET "{state}" = json_remove(json_set("{state}", '$.{now}', json_extract("{state}", '$.{was}')), '$.{was}')
                    WHERE "Subject" = 'Event' AND json_extract("{state}", '$.{was}') IS NOT NULL;
                    """);
            }
        }
    }
}
