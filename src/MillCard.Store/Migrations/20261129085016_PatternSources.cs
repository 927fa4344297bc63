using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class PatternSources : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "pattern_source",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    about = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<string>(type: "text", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    sha256 = table.Column<string>(type: "text", nullable: false),
                    signed_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    taken_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    looked_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    trouble = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_pattern_source", x => x.id);
                    table.CheckConstraint("pattern_source_id", "id ~ '^[a-z0-9-]{1,48}$'");
                });

            migrationBuilder.CreateTable(
                name: "pattern_version",
                columns: table => new
                {
                    source_id = table.Column<string>(type: "text", nullable: false),
                    pattern_id = table.Column<string>(type: "text", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    about = table.Column<string>(type: "text", nullable: false),
                    note = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    sha256 = table.Column<string>(type: "text", nullable: false),
                    card = table.Column<string>(type: "jsonb", nullable: false),
                    summary = table.Column<string>(type: "jsonb", nullable: false),
                    listed = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_pattern_version", x => new { x.source_id, x.pattern_id, x.version });
                    table.CheckConstraint("pattern_version_version", "version > 0");
                    table.ForeignKey(
                        name: "FK_pattern_version_pattern_source_source_id",
                        column: x => x.source_id,
                        principalTable: "pattern_source",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            // the rack says of a card from which pattern it comes
            migrationBuilder.Sql("update document set summary = jsonb_set(summary, '{pattern}', draft->'pattern') "
                + "where kind = 'card' and summary is not null and jsonb_typeof(draft->'pattern') = 'object'");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "pattern_version");

            migrationBuilder.DropTable(
                name: "pattern_source");
        }
    }
}
