using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Passports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Inspections_WorkOrder",
                table: "Inspections");

            migrationBuilder.AddColumn<string>(
                name: "ChainThere",
                table: "SignedRecords",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "KeyFingerprint",
                table: "SignedRecords",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "NumberThere",
                table: "SignedRecords",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ShopThere",
                table: "SignedRecords",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Signature",
                table: "SignedRecords",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "TakenInAt",
                table: "SignedRecords",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Elsewhere",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Signature",
                table: "Amendments",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Evidence",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InspectionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Evidence", x => x.Hash);
                });

            migrationBuilder.CreateTable(
                name: "Passports",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AircraftId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Shop = table.Column<string>(type: "TEXT", nullable: false),
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    Manifest = table.Column<string>(type: "TEXT", nullable: false),
                    Signature = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Passports", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ShopKeys",
                columns: table => new
                {
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    Chain = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    PublicKey = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    AfterRecord = table.Column<long>(type: "INTEGER", nullable: false),
                    AfterHash = table.Column<string>(type: "TEXT", nullable: false),
                    Signature = table.Column<string>(type: "TEXT", nullable: false),
                    HandOver = table.Column<string>(type: "TEXT", nullable: true),
                    ShopThere = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ShopKeys", x => x.Fingerprint);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_WorkOrder",
                table: "Inspections",
                column: "WorkOrder");

            migrationBuilder.CreateIndex(
                name: "IX_Evidence_InspectionId",
                table: "Evidence",
                column: "InspectionId");

            migrationBuilder.CreateIndex(
                name: "IX_Passports_AircraftId",
                table: "Passports",
                column: "AircraftId");

            // What was signed, by which key, on what, and what was put right since: the database refuses what the code would never ask.
            foreach (var table in new[] { "Evidence", "ShopKeys", "Passports", "Amendments" })
            {
                migrationBuilder.Sql($"""
                    CREATE TRIGGER {table}_never_changes BEFORE UPDATE ON {table}
                    BEGIN SELECT RAISE(ABORT, 'It stays as it was written.'); END;
                    """);
                migrationBuilder.Sql($"""
                    CREATE TRIGGER {table}_never_goes BEFORE DELETE ON {table}
                    BEGIN SELECT RAISE(ABORT, 'It is never deleted.'); END;
                    """);
            }
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Evidence");

            migrationBuilder.DropTable(
                name: "Passports");

            migrationBuilder.DropTable(
                name: "ShopKeys");

            migrationBuilder.DropIndex(
                name: "IX_Inspections_WorkOrder",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "ChainThere",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "KeyFingerprint",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "NumberThere",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "ShopThere",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "Signature",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "TakenInAt",
                table: "SignedRecords");

            migrationBuilder.DropColumn(
                name: "Elsewhere",
                table: "People");

            migrationBuilder.DropColumn(
                name: "Signature",
                table: "Amendments");

            migrationBuilder.CreateIndex(
                name: "IX_Inspections_WorkOrder",
                table: "Inspections",
                column: "WorkOrder",
                unique: true);
        }
    }
}
