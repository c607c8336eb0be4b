using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class MailRank : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Mails_Waiting",
                table: "Mails");

            migrationBuilder.AddColumn<int>(
                name: "Rank",
                table: "Mails",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateIndex(
                name: "IX_Mails_Waiting",
                table: "Mails",
                columns: new[] { "Rank", "DueAt" },
                filter: "SentAt IS NULL AND GivenUpAt IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Mails_Waiting",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "Rank",
                table: "Mails");

            migrationBuilder.CreateIndex(
                name: "IX_Mails_Waiting",
                table: "Mails",
                column: "DueAt",
                filter: "SentAt IS NULL AND GivenUpAt IS NULL");
        }
    }
}
