using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Noticeboards : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Noticeboards",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    GroupId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Keeper = table.Column<Guid>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Settings = table.Column<string>(type: "TEXT", nullable: false),
                    Calendars = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Noticeboards", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Noticeboards_Groups_GroupId",
                        column: x => x.GroupId,
                        principalTable: "Groups",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Noticeboards_People_Keeper",
                        column: x => x.Keeper,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ShortAddresses",
                columns: table => new
                {
                    Space = table.Column<string>(type: "TEXT", nullable: false),
                    Look = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    HeldUntil = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ShortAddresses", x => new { x.Space, x.Look });
                });

            migrationBuilder.CreateTable(
                name: "NoticeboardOpens",
                columns: table => new
                {
                    NoticeboardId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<string>(type: "TEXT", nullable: false),
                    Opens = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_NoticeboardOpens", x => new { x.NoticeboardId, x.Day });
                    table.ForeignKey(
                        name: "FK_NoticeboardOpens_Noticeboards_NoticeboardId",
                        column: x => x.NoticeboardId,
                        principalTable: "Noticeboards",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Noticeboards_GroupId",
                table: "Noticeboards",
                column: "GroupId");

            migrationBuilder.CreateIndex(
                name: "IX_Noticeboards_Keeper",
                table: "Noticeboards",
                column: "Keeper");

            migrationBuilder.CreateIndex(
                name: "IX_ShortAddresses_OwnerId",
                table: "ShortAddresses",
                column: "OwnerId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "NoticeboardOpens");

            migrationBuilder.DropTable(
                name: "ShortAddresses");

            migrationBuilder.DropTable(
                name: "Noticeboards");
        }
    }
}
