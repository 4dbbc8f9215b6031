using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class AircraftFile : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // What the columns said is kept aside until AircraftFileData has put it in its new place.
            migrationBuilder.Sql("CREATE TABLE _Stays AS SELECT Id, AircraftId, ParentId, Position, InstalledAt, HoursWhenInstalled, RemovedAt, RemovedWhy FROM Component");
            migrationBuilder.Sql("CREATE TABLE _Times AS SELECT Id, Times FROM Aircraft");

            migrationBuilder.DropForeignKey(
                name: "FK_Component_Aircraft_AircraftId",
                table: "Component");

            migrationBuilder.DropForeignKey(
                name: "FK_Component_Component_ParentId",
                table: "Component");

            migrationBuilder.DropIndex(
                name: "IX_Component_AircraftId",
                table: "Component");

            migrationBuilder.DropIndex(
                name: "IX_Component_ParentId",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "AircraftId",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "HoursWhenInstalled",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "RemovedWhy",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "RemovedAt",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "Position",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "ParentId",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "InstalledAt",
                table: "Component");

            migrationBuilder.DropColumn(
                name: "Times",
                table: "Aircraft");

            migrationBuilder.AddColumn<string>(
                name: "OwnFiringOrder",
                table: "Component",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "MadeOn",
                table: "Component",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Overhauls",
                table: "Component",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Ignition",
                table: "Component",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Name",
                table: "Component",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "TimeInService",
                table: "Aircraft",
                type: "TEXT",
                nullable: false,
                defaultValue: "0");

            migrationBuilder.AddColumn<string>(
                name: "CalendarKeyHash",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Arrival",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "{\"round\":[],\"cameInWith\":[]}");

            migrationBuilder.AddColumn<string>(
                name: "LeftOut",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Squawks",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<decimal>(
                name: "WorksheetHours",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: 0m);

            migrationBuilder.AddColumn<string>(
                name: "GapNotes",
                table: "Aircraft",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Meters",
                table: "Aircraft",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<DateOnly>(
                name: "ReadOn",
                table: "Aircraft",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "TimeBasis",
                table: "Aircraft",
                type: "TEXT",
                nullable: false,
                defaultValue: "Tach");

            migrationBuilder.CreateTable(
                name: "DueItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Interval = table.Column<string>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    DiscrepancyId = table.Column<Guid>(type: "TEXT", nullable: true),
                    LabourHours = table.Column<decimal>(type: "TEXT", nullable: true),
                    RetiredWhy = table.Column<string>(type: "TEXT", nullable: true),
                    Done = table.Column<string>(type: "TEXT", nullable: false),
                    DoneBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DueItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DueItems_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_DueItems_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "Installations",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ComponentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ParentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Position = table.Column<string>(type: "TEXT", nullable: false),
                    InstalledOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    InstalledAt = table.Column<string>(type: "TEXT", nullable: false),
                    OwnTimeThen = table.Column<string>(type: "TEXT", nullable: true),
                    RemovedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    RemovedAt = table.Column<string>(type: "TEXT", nullable: true),
                    RemovedWhy = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Installations", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Installations_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Installations_Component_ComponentId",
                        column: x => x.ComponentId,
                        principalTable: "Component",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Installations_Component_ParentId",
                        column: x => x.ParentId,
                        principalTable: "Component",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "LogBooks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    FirstOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    LastOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    IsLost = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LogBooks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LogBooks_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "MeterReadings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Meter = table.Column<int>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Shown = table.Column<decimal>(type: "TEXT", nullable: false),
                    Total = table.Column<decimal>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MeterReadings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_MeterReadings_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BookEntries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    BookId = table.Column<Guid>(type: "TEXT", nullable: false),
                    On = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Hours = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Page = table.Column<string>(type: "TEXT", nullable: false),
                    Photo = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BookEntries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BookEntries_Aircraft_AircraftId",
                        column: x => x.AircraftId,
                        principalTable: "Aircraft",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BookEntries_LogBooks_BookId",
                        column: x => x.BookId,
                        principalTable: "LogBooks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_People_CalendarKeyHash",
                table: "People",
                column: "CalendarKeyHash");

            migrationBuilder.CreateIndex(
                name: "IX_Component_SerialNumber",
                table: "Component",
                column: "SerialNumber");

            migrationBuilder.CreateIndex(
                name: "IX_BookEntries_AircraftId_On",
                table: "BookEntries",
                columns: new[] { "AircraftId", "On" });

            migrationBuilder.CreateIndex(
                name: "IX_BookEntries_BookId",
                table: "BookEntries",
                column: "BookId");

            migrationBuilder.CreateIndex(
                name: "IX_DueItems_AircraftId",
                table: "DueItems",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_DueItems_ComponentId",
                table: "DueItems",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_AircraftId",
                table: "Installations",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_ComponentId",
                table: "Installations",
                column: "ComponentId");

            migrationBuilder.CreateIndex(
                name: "IX_Installations_ParentId",
                table: "Installations",
                column: "ParentId");

            migrationBuilder.CreateIndex(
                name: "IX_LogBooks_AircraftId",
                table: "LogBooks",
                column: "AircraftId");

            migrationBuilder.CreateIndex(
                name: "IX_MeterReadings_AircraftId_Kind_On",
                table: "MeterReadings",
                columns: new[] { "AircraftId", "Kind", "On" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new System.NotSupportedException("The backup made before this migration is the way back.");
    }
}
