using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class SaidApart : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "CameLate",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "SaidApart",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "Twin",
                table: "Discrepancy",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "CameLate",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "SaidApart",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "Twin",
                table: "Discrepancy");
        }
    }
}
