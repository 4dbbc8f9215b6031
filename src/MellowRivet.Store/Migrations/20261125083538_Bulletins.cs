using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Bulletins : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Bulletins",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "BulletinCases",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Family = table.Column<string>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Policy = table.Column<string>(type: "TEXT", nullable: true),
                    Ferry = table.Column<string>(type: "TEXT", nullable: true),
                    Done = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BulletinCases", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BulletinCases_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_BulletinCases_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "Bulletins",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Family = table.Column<string>(type: "TEXT", nullable: false),
                    Revision = table.Column<string>(type: "TEXT", nullable: false),
                    Bulletin = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: true),
                    ReceivedAt = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false),
                    Attachments = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Bulletins", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Feeds",
                columns: table => new
                {
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Said = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Feeds", x => x.Source);
                });

            migrationBuilder.CreateTable(
                name: "StatedFacts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: false),
                    Photo = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StatedFacts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StatedFacts_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_StatedFacts_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_AircraftId",
                table: "BulletinCases",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_ComponentId",
                table: "BulletinCases",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_BulletinCases_Family_AircraftId_ComponentId",
                table: "BulletinCases",
                columns: new[] { "Family", "AircraftId", "ComponentId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Bulletins_Family_Revision",
                table: "Bulletins",
                columns: new[] { "Family", "Revision" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_StatedFacts_AircraftId",
                table: "StatedFacts",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_StatedFacts_ComponentId",
                table: "StatedFacts",
                column: "ComponentId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BulletinCases");

            migrationBuilder.DropTable(
                name: "Bulletins");

            migrationBuilder.DropTable(
                name: "Feeds");

            migrationBuilder.DropTable(
                name: "StatedFacts");

            migrationBuilder.DropColumn(
                name: "Bulletins",
                table: "Inspections");
        }
    }
}
