package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;

/**
 * What a receiver under test tells.
 *
 * @param countsBits it counts bits and errors
 * @param bitRate bits a second that it counts
 * @param packetBits bits of a packet that it counts, 0 if it counts none
 * @param givesAudio its loudspeaker's output can be had
 * @param hasSquelch it says whether its squelch is open
 */
@Schema(name = "ReceiverSource")
record ReceiverSource(
    boolean countsBits, double bitRate, int packetBits, boolean givesAudio, boolean hasSquelch) {}
