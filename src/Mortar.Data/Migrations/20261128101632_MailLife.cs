using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class MailLife : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Mails_Waiting",
                table: "Mails");

            migrationBuilder.AddColumn<Guid>(
                name: "CausedBy",
                table: "Mails",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "GivenUpAt",
                table: "Mails",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ReplySequence",
                table: "Answers",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "ReplyStamp",
                table: "Answers",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "MailStops",
                columns: table => new
                {
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    StoppedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MailStops", x => x.Address);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Mails_CausedBy_WrittenAt",
                table: "Mails",
                columns: new[] { "CausedBy", "WrittenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Mails_To_WrittenAt",
                table: "Mails",
                columns: new[] { "To", "WrittenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Mails_Waiting",
                table: "Mails",
                column: "DueAt",
                filter: "SentAt IS NULL AND GivenUpAt IS NULL");

            // What went out before is kept no longer than what goes out from now on.
            migrationBuilder.Sql("UPDATE Mails SET Body = '', AnswersTo = NULL WHERE SentAt IS NOT NULL;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "MailStops");

            migrationBuilder.DropIndex(
                name: "IX_Mails_CausedBy_WrittenAt",
                table: "Mails");

            migrationBuilder.DropIndex(
                name: "IX_Mails_To_WrittenAt",
                table: "Mails");

            migrationBuilder.DropIndex(
                name: "IX_Mails_Waiting",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "CausedBy",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "GivenUpAt",
                table: "Mails");

            migrationBuilder.DropColumn(
                name: "ReplySequence",
                table: "Answers");

            migrationBuilder.DropColumn(
                name: "ReplyStamp",
                table: "Answers");

            migrationBuilder.CreateIndex(
                name: "IX_Mails_Waiting",
                table: "Mails",
                column: "DueAt",
                filter: "SentAt IS NULL");
        }
    }
}
