using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class OpenAsks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "OpenAsks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    PersonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ToPersonId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ToGroupId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Role = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OpenAsks", x => x.Id);
                    table.CheckConstraint("CK_OpenAsks_To", "(ToPersonId IS NULL) <> (ToGroupId IS NULL)");
                    table.ForeignKey(
                        name: "FK_OpenAsks_Groups_ToGroupId",
                        column: x => x.ToGroupId,
                        principalTable: "Groups",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_OpenAsks_People_PersonId",
                        column: x => x.PersonId,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_OpenAsks_People_ToPersonId",
                        column: x => x.ToPersonId,
                        principalTable: "People",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateIndex(
                name: "IX_OpenAsks_ToGroupId",
                table: "OpenAsks",
                column: "ToGroupId");

            migrationBuilder.CreateIndex(
                name: "IX_OpenAsks_ToPersonId",
                table: "OpenAsks",
                column: "ToPersonId");

            migrationBuilder.CreateIndex(
                name: "UX_OpenAsks_OneGroup",
                table: "OpenAsks",
                columns: new[] { "PersonId", "ToGroupId" },
                unique: true,
                filter: "State = 'Waiting' AND ToGroupId IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "UX_OpenAsks_OnePerson",
                table: "OpenAsks",
                columns: new[] { "PersonId", "ToPersonId" },
                unique: true,
                filter: "State = 'Waiting' AND ToPersonId IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "OpenAsks");
        }
    }
}
