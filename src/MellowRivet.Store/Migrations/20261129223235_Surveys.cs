using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Surveys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "For",
                table: "OwnerLinks",
                type: "TEXT",
                nullable: false,
                defaultValue: "Owner");

            migrationBuilder.AddColumn<string>(
                name: "Survey",
                table: "Inspections",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Sampling",
                table: "InspectionTask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "OnlySurveyed",
                table: "Aircraft",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "For",
                table: "OwnerLinks");

            migrationBuilder.DropColumn(
                name: "Survey",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Sampling",
                table: "InspectionTask");

            migrationBuilder.DropColumn(
                name: "OnlySurveyed",
                table: "Aircraft");
        }
    }
}
