using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Telling : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Tells",
                table: "Mails",
                type: "TEXT",
                nullable: false,
                defaultValue: "Nothing");

            migrationBuilder.AddColumn<bool>(
                name: "IsToldOff",
                table: "Asked",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "ToldVersion",
                table: "Asked",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Tells",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "IsToldOff",
                table: "Asked");

            migrationBuilder.DropColumn(
                name: "ToldVersion",
                table: "Asked");
        }
    }
}
