using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class ToolRange : Migration
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
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
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
