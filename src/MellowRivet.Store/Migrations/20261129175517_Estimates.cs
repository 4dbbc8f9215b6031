using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Estimates : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Agreed",
                table: "OpenItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Estimate",
                table: "OpenItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Choices",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "PricedWork",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Agreed",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "JobKind",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "BookedTimes",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    Hours = table.Column<decimal>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BookedTimes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BookedTimes_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OrderedParts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Quantity = table.Column<decimal>(type: "TEXT", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Supplier = table.Column<string>(type: "TEXT", nullable: false),
                    Price = table.Column<decimal>(type: "TEXT", nullable: true),
                    AskedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    OrderedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    ExpectedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Core = table.Column<string>(type: "TEXT", nullable: true),
                    NoTrace = table.Column<string>(type: "TEXT", nullable: true),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false),
                    Fitted = table.Column<string>(type: "TEXT", nullable: false),
                    Receipts = table.Column<string>(type: "TEXT", nullable: false),
                    SentBack = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OrderedParts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OrderedParts_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_OrderedParts_Inspections_InspectionId",
                        column: x => x.InspectionId,
                        principalTable: "Inspections",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateIndex(
                name: "IX_BookedTimes_By_Hours",
                table: "BookedTimes",
                columns: new[] { "By", "Hours" });

            migrationBuilder.CreateIndex(
                name: "IX_BookedTimes_InspectionId",
                table: "BookedTimes",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_BookedTimes_Kind",
                table: "BookedTimes",
                column: "Kind");

            migrationBuilder.CreateIndex(
                name: "IX_OrderedParts_AircraftId",
                table: "OrderedParts",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_OrderedParts_InspectionId_Key",
                table: "OrderedParts",
                columns: new[] { "InspectionId", "Key" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BookedTimes");

            migrationBuilder.DropTable(
                name: "OrderedParts");

            migrationBuilder.DropColumn(
                name: "Agreed",
                table: "OpenItems");

            migrationBuilder.DropColumn(
                name: "Estimate",
                table: "OpenItems");

            migrationBuilder.DropColumn(
                name: "Choices",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "PricedWork",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Agreed",
                table: "Discrepancy");

            migrationBuilder.DropColumn(
                name: "JobKind",
                table: "Discrepancy");
        }
    }
}
