using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class LeanLog : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Changes_Concerns_Sequence",
                table: "Changes");

            migrationBuilder.DropIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_Concerns_Sequence",
                table: "Changes",
                columns: new[] { "Concerns", "Sequence" },
                filter: "Concerns IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes",
                columns: new[] { "GroupId", "Sequence" },
                filter: "GroupId IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Changes_Concerns_Sequence",
                table: "Changes");

            migrationBuilder.DropIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_Concerns_Sequence",
                table: "Changes",
                columns: new[] { "Concerns", "Sequence" });

            migrationBuilder.CreateIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes",
                columns: new[] { "GroupId", "Sequence" });
        }
    }
}
