using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class MailParts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "AnswersTo",
                table: "Mails",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "AskedBy",
                table: "Mails",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "AsksAbout",
                table: "Mails",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "AnswersTo",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "AskedBy",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "AsksAbout",
                table: "Mails");
        }
    }
}
