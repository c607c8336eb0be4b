using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Members : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Address",
                table: "Members",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ClaimHash",
                table: "Members",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "Id",
                table: "Members",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddColumn<long>(
                name: "InvitedAt",
                table: "Members",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "LeftAt",
                table: "Members",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Members",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            // Each place in a group gets a name of its own, as the log needs one.
            migrationBuilder.Sql(
                """
                UPDATE Members SET Version = 1, Id = upper(
                    hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-' ||
                    hex(randomblob(2)) || '-' || hex(randomblob(6)))
                """);

            migrationBuilder.CreateIndex(
                name: "UX_Members_ClaimHash",
                table: "Members",
                column: "ClaimHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "UX_Members_Id",
                table: "Members",
                column: "Id",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "UX_Members_ClaimHash",
                table: "Members");

            migrationBuilder.DropIndex(
                name: "UX_Members_Id",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "Address",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "ClaimHash",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "Id",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "InvitedAt",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "LeftAt",
                table: "Members");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Members");
        }
    }
}
