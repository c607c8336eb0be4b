using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Consent : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "AskedAt",
                table: "Members",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "AskedBy",
                table: "Members",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "ClaimedBy",
                table: "Members",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "SaidNoAt",
                table: "Members",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "ChosenBy",
                table: "Guardians",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "GuardianAskedAt",
                table: "Guardians",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "WardAskedAt",
                table: "Guardians",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "GroupId",
                table: "Changes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes",
                columns: new[] { "GroupId", "Sequence" });

            // What was written before says in its state which group it is about.
            migrationBuilder.Sql("""
                UPDATE Changes SET GroupId = upper(json_extract(After, '$.GroupId.Value'))
                WHERE Subject IN ('Member', 'Guardian', 'Guest') AND After IS NOT NULL;
                """);
            migrationBuilder.Sql("UPDATE Changes SET GroupId = upper(SubjectId) WHERE Subject = 'Group';");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Changes_GroupId_Sequence",
                table: "Changes");

            migrationBuilder.DropColumn(
                name: "AskedAt",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "AskedBy",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "ClaimedBy",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "SaidNoAt",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "ChosenBy",
                table: "Guardians");

            migrationBuilder.DropColumn(
                name: "GuardianAskedAt",
                table: "Guardians");

            migrationBuilder.DropColumn(
                name: "WardAskedAt",
                table: "Guardians");

            migrationBuilder.DropColumn(
                name: "GroupId",
                table: "Changes");
        }
    }
}
