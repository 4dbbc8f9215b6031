using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class Types : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "LeastTorque",
                table: "Tools",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "MostTorque",
                table: "Tools",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "TorqueUnit",
                table: "Tools",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "Types",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Maker = table.Column<string>(type: "TEXT", nullable: false),
                    Designation = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<int>(type: "INTEGER", nullable: false),
                    Aliases = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Types", x => x.Id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Types");

            migrationBuilder.DropColumn(
                name: "LeastTorque",
                table: "Tools");

            migrationBuilder.DropColumn(
                name: "MostTorque",
                table: "Tools");

            migrationBuilder.DropColumn(
                name: "TorqueUnit",
                table: "Tools");
        }
    }
}
