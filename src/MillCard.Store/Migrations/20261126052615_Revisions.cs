using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace MillCard.Store.Migrations
{
    /// <inheritdoc />
    public partial class Revisions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "print",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    card_id = table.Column<Guid>(type: "uuid", nullable: false),
                    record = table.Column<string>(type: "jsonb", nullable: false),
                    picture = table.Column<string>(type: "text", nullable: true),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_print", x => x.id);
                    table.ForeignKey(
                        name: "FK_print_blob_picture",
                        column: x => x.picture,
                        principalTable: "blob",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_print_document_card_id",
                        column: x => x.card_id,
                        principalTable: "document",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "revision",
                columns: table => new
                {
                    card_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    document = table.Column<string>(type: "jsonb", nullable: false),
                    note = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_revision", x => new { x.card_id, x.number });
                    table.CheckConstraint("revision_number", "number > 0");
                    table.ForeignKey(
                        name: "FK_revision_document_card_id",
                        column: x => x.card_id,
                        principalTable: "document",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "proof",
                columns: table => new
                {
                    card_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    trial = table.Column<string>(type: "text", nullable: false),
                    trial_id = table.Column<Guid>(type: "uuid", nullable: false),
                    rests_on = table.Column<string>(type: "jsonb", nullable: false),
                    program = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_proof", x => new { x.card_id, x.number });
                    table.ForeignKey(
                        name: "FK_proof_revision_card_id_number",
                        columns: x => new { x.card_id, x.number },
                        principalTable: "revision",
                        principalColumns: new[] { "card_id", "number" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_print_card_id_at",
                table: "print",
                columns: new[] { "card_id", "at" });

            migrationBuilder.CreateIndex(
                name: "IX_print_picture",
                table: "print",
                column: "picture");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "print");

            migrationBuilder.DropTable(
                name: "proof");

            migrationBuilder.DropTable(
                name: "revision");
        }
    }
}
