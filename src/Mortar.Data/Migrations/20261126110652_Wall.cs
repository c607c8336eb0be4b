using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Wall : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Preferences",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Beside",
                table: "Layers",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Hue",
                table: "Layers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Mark",
                table: "Layers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Name",
                table: "Layers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Place",
                table: "Layers",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Attendees",
                table: "Events",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "Events",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "Private",
                table: "Events",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Reminder",
                table: "Events",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Kinds",
                table: "Calendars",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "Person",
                table: "Calendars",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Takes",
                table: "Calendars",
                type: "TEXT",
                nullable: false,
                defaultValue: "Named");

            migrationBuilder.CreateTable(
                name: "Sets",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Owner = table.Column<Guid>(type: "TEXT", nullable: false),
                    GroupId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Layers = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sets", x => x.Id);
                    table.CheckConstraint("CK_Sets_Name", "length(Name) > 0");
                    table.ForeignKey(
                        name: "FK_Sets_Groups_GroupId",
                        column: x => x.GroupId,
                        principalTable: "Groups",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Sets_People_Owner",
                        column: x => x.Owner,
                        principalTable: "People",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Sets_GroupId",
                table: "Sets",
                column: "GroupId");

            migrationBuilder.CreateIndex(
                name: "IX_Sets_Owner",
                table: "Sets",
                column: "Owner");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Sets");

            migrationBuilder.DropColumn(
                name: "Preferences",
                table: "People");

            migrationBuilder.DropColumn(
                name: "Beside",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "Hue",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "Mark",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "Name",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "Place",
                table: "Layers");

            migrationBuilder.DropColumn(
                name: "Attendees",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Kind",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Private",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Reminder",
                table: "Events");

            migrationBuilder.DropColumn(
                name: "Kinds",
                table: "Calendars");

            migrationBuilder.DropColumn(
                name: "Person",
                table: "Calendars");

            migrationBuilder.DropColumn(
                name: "Takes",
                table: "Calendars");
        }
    }
}
