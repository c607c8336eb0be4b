using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class PasswordResets : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "PasswordResets",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: true),
                    AddressHash = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    UsedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PasswordResets", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PasswordResets_AddressHash_AskedAt",
                table: "PasswordResets",
                columns: new[] { "AddressHash", "AskedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_PasswordResets_AskedAt",
                table: "PasswordResets",
                column: "AskedAt");

            migrationBuilder.CreateIndex(
                name: "IX_PasswordResets_Hash",
                table: "PasswordResets",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PasswordResets_PersonId",
                table: "PasswordResets",
                column: "PersonId",
                filter: "PersonId IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PasswordResets");
        }
    }
}
