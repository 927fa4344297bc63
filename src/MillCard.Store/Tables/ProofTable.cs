using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Stamps on revisions, as they stand in the database.</summary>
internal sealed class ProofTable : IEntityTypeConfiguration<ProofRow>
{
    public void Configure(EntityTypeBuilder<ProofRow> proof)
    {
        proof.ToTable("proof");
        proof.HasKey(p => new { p.CardId, p.Number });
        proof.Property(p => p.CardId).HasColumnName("card_id");
        proof.Property(p => p.Number).HasColumnName("number").ValueGeneratedNever();
        proof.Property(p => p.Trial).HasColumnName("trial");
        proof.Property(p => p.TrialId).HasColumnName("trial_id");
        proof.Property(p => p.RestsOn).HasColumnName("rests_on").HasColumnType("jsonb");
        proof.Property(p => p.Program).HasColumnName("program");
        proof.Property(p => p.At).HasColumnName("at");
        proof.HasOne<RevisionRow>().WithOne().HasForeignKey<ProofRow>(p => new { p.CardId, p.Number }).OnDelete(DeleteBehavior.Cascade);
    }
}
