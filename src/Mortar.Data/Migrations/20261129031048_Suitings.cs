using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Mortar.Data.Migrations
{
    /// <inheritdoc />
    public partial class Suitings : Migration
    {
        private static readonly (string Was, string Is)[] Words =
        [
            ("/Yes", "/Suits"),
            ("/IfNeedBe", "/WouldDo"),
            ("/No", "/DoesNotSuit"),
        ];

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            Make(migrationBuilder, "Suitings", "Said");
            Carry(migrationBuilder, "Votes", "Votes", "Suitings", "Said", text => Replaced(text, isBack: false));
            Rename(migrationBuilder, "Vote", "Votes", "Suitings", "Said", text => Replaced(text, isBack: false));
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            Make(migrationBuilder, "Votes", "Votes");
            Carry(migrationBuilder, "Suitings", "Said", "Votes", "Votes", text => Replaced(text, isBack: true));
            Rename(migrationBuilder, "Suitings", "Said", "Vote", "Votes", text => Replaced(text, isBack: true));
        }

        private static void Make(MigrationBuilder migrationBuilder, string name, string said)
        {
            migrationBuilder.Sql(
                $"""
                CREATE TABLE "{name}" (
                    "Id" TEXT NOT NULL CONSTRAINT "PK_{name}" PRIMARY KEY,
                    "ProposalId" TEXT NOT NULL,
                    "CalendarId" TEXT NOT NULL,
                    "PersonId" TEXT NOT NULL,
                    "{said}" TEXT NOT NULL,
                    "Comment" TEXT NOT NULL,
                    "ProposedBy" TEXT NOT NULL,
                    "Version" INTEGER NOT NULL,
                    CONSTRAINT "FK_{name}_People_PersonId" FOREIGN KEY ("PersonId") REFERENCES "People" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_{name}_Proposals_ProposalId" FOREIGN KEY ("ProposalId") REFERENCES "Proposals" ("Id") ON DELETE CASCADE
                );
                CREATE INDEX "IX_{name}_PersonId" ON "{name}" ("PersonId");
                CREATE UNIQUE INDEX "UX_{name}_OncePerPerson" ON "{name}" ("ProposalId", "PersonId");
                """);
        }

        private static void Carry(MigrationBuilder migrationBuilder, string from, string text, string to, string said, Func<string, string> replaced) =>
            migrationBuilder.Sql(
                $"""
                INSERT INTO "{to}" ("Id", "ProposalId", "CalendarId", "PersonId", "{said}", "Comment", "ProposedBy", "Version")
                SELECT "Id", "ProposalId", "CalendarId", "PersonId", {replaced($"\"{text}\"")}, "Comment", "ProposedBy", "Version"
                FROM "{from}";
                DROP TABLE "{from}";
                """);

        /// <summary>What the log keeps of it has the new names as well, so that it can be undone.</summary>
        private static void Rename(MigrationBuilder migrationBuilder, string subject, string text, string newSubject, string said, Func<string, string> replaced)
        {
            foreach (var state in new[] { "Before", "After" })
            {
                migrationBuilder.Sql(
                    $"""
                    UPDATE "Changes"
                    SET "{state}" = json_remove(json_set("{state}", '$.{said}', {replaced($"json_extract(\"{state}\", '$.{text}')")}), '$.{text}')
                    WHERE "Subject" = '{subject}' AND "{state}" IS NOT NULL;
                    """);
            }

            migrationBuilder.Sql($"""UPDATE "Changes" SET "Subject" = '{newSubject}' WHERE "Subject" = '{subject}';""");
        }

        private static string Replaced(string text, bool isBack)
        {
            foreach (var (was, now) in Words)
            {
                text = isBack ? $"replace({text}, '{now}', '{was}')" : $"replace({text}, '{was}', '{now}')";
            }

            return text;
        }
    }
}
