using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MellowRivet.Store.Migrations
{
    /// <inheritdoc />
    public partial class WhatEntriesSay : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "FittedBy",
                table: "Installations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "TakenOffBy",
                table: "Installations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "AddedLines",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "EntryLength",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "Full");

            migrationBuilder.AddColumn<string>(
                name: "OilFills",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "OmittedFacts",
                table: "Inspections",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "FittedBy",
                table: "Installations");

            migrationBuilder.DropColumn(
                name: "TakenOffBy",
                table: "Installations");

            migrationBuilder.DropColumn(
                name: "AddedLines",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "EntryLength",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "OilFills",
                table: "Inspections");

            migrationBuilder.DropColumn(
                name: "OmittedFacts",
                table: "Inspections");
        }
    }
}
