using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class OpenItems : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ChangedAt",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Checklist",
                table: "Inspections",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "NotPart",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Remembered",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "SetAside",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "SignersLooks",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Asks",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Covers",
                table: "InspectionTask",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "CarriedFrom",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CarriedNumber",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LookedAgain",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Lowered",
                table: "Discrepancy",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Origin",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "OpenItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    DiscrepancyId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FirstNumber = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    FoundBy = table.Column<Guid>(type: "TEXT", nullable: false),
                    FoundAt = table.Column<string>(type: "TEXT", nullable: false),
                    LookedOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    ZoneKey = table.Column<string>(type: "TEXT", nullable: false),
                    ZoneTitle = table.Column<string>(type: "TEXT", nullable: false),
                    Where = table.Column<string>(type: "TEXT", nullable: false),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Pin = table.Column<string>(type: "TEXT", nullable: true),
                    Book = table.Column<string>(type: "TEXT", nullable: false),
                    Class = table.Column<string>(type: "TEXT", nullable: false),
                    Because = table.Column<string>(type: "TEXT", nullable: false),
                    Grounded = table.Column<bool>(type: "INTEGER", nullable: false),
                    Origin = table.Column<string>(type: "TEXT", nullable: true),
                    Placarded = table.Column<string>(type: "TEXT", nullable: false),
                    End = table.Column<string>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Deferral = table.Column<string>(type: "TEXT", nullable: false),
                    Photos = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OpenItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OpenItems_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_OpenItems_AircraftId",
                table: "OpenItems",
                column: "AircraftId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "OpenItems");

            migrationBuilder.DropColumn(
                name: "ChangedAt",
                table: "Readings");

            migrationBuilder.DropColumn(
                name: "Checklist",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "NotPart",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Remembered",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "SetAside",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "SignersLooks",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Asks",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "Covers",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "CarriedFrom",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "CarriedNumber",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "LookedAgain",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Lowered",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "Origin",
                table: "Discrepancy");
        }
    }
}
