package rovnik.core.modulation.ofdm;

/**
 * One of several users to whom a packet is sent.
 *
 * @param tones of its unit: 26, 52, 106, 242, 484 or 996
 * @param place of that among all of its size, from the lowest, which is 1
 * @param station its number, 0 to 2045
 * @param mcs 0 to 11
 * @param levelDb of its tones over those of others
 */
public record SentUser(int tones, int place, int station, int mcs, double levelDb) {}
