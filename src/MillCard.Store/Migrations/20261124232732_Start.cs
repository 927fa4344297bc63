using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class Start : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "blob",
                columns: table => new
                {
                    hash = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_blob", x => x.hash);
                    table.CheckConstraint("blob_hash", "hash ~ '^[0-9a-f]{64}$'");
                });

            migrationBuilder.CreateTable(
                name: "document",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    draft = table.Column<string>(type: "jsonb", nullable: false),
                    summary = table.Column<string>(type: "jsonb", nullable: true),
                    card_id = table.Column<Guid>(type: "uuid", nullable: true),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    saved_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_document", x => x.id);
                    table.CheckConstraint("document_card", "(kind = 'trial') = (card_id is not null)");
                    table.CheckConstraint("document_kind", "kind in ('card', 'filament', 'recipe', 'trial')");
                    table.ForeignKey(
                        name: "FK_document_document_card_id",
                        column: x => x.card_id,
                        principalTable: "document",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "done",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_done", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "run",
                columns: table => new
                {
                    trial_id = table.Column<Guid>(type: "uuid", nullable: false),
                    program = table.Column<string>(type: "text", nullable: false),
                    layers = table.Column<string>(type: "text", nullable: true),
                    card = table.Column<string>(type: "jsonb", nullable: false),
                    result = table.Column<string>(type: "jsonb", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_run", x => x.trial_id);
                    table.ForeignKey(
                        name: "FK_run_blob_layers",
                        column: x => x.layers,
                        principalTable: "blob",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_run_blob_program",
                        column: x => x.program,
                        principalTable: "blob",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_run_document_trial_id",
                        column: x => x.trial_id,
                        principalTable: "document",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_document_card_id",
                table: "document",
                column: "card_id");

            migrationBuilder.CreateIndex(
                name: "IX_document_kind_name",
                table: "document",
                columns: new[] { "kind", "name" });

            migrationBuilder.CreateIndex(
                name: "IX_run_layers",
                table: "run",
                column: "layers");

            migrationBuilder.CreateIndex(
                name: "IX_run_program",
                table: "run",
                column: "program");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "done");

            migrationBuilder.DropTable(
                name: "run");

            migrationBuilder.DropTable(
                name: "blob");

            migrationBuilder.DropTable(
                name: "document");
        }
    }
}
